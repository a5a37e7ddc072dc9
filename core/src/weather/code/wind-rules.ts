import { convert, type Unit } from "../../units/convert";
import { type ReportedWind, windText } from "../report";
import type { GroupRule } from "./group-rule";

const UNITS: Record<string, Unit> = { KT: "kt", MPS: "m/s", KMH: "km/h" };
/** Greatest speed that has a number of its own; a stronger one is written with "P". */
const GREATEST: Record<string, number> = { KT: 99, MPS: 49, KMH: 199 };

/** Surface wind. */
export const WIND_RULES: readonly GroupRule[] = [
  {
    name: "wind",
    shape: /^(\d{3}|VRB|\/{3})(P?)(\d{2,3}|\/\/)(?:G(P?)(\d{2,3}|\/\/))?(KT|MPS|KMH)$/,
    source: "FM 15, 15.5: dddffGfmfm",
    read([, from = "", over, speed = "", gustOver, gust, suffix = ""], draft) {
      if (speed === "//") return { notObserved: "wind not observed" };
      const unit = UNITS[suffix] as Unit;
      const most = GREATEST[suffix] as number;
      const deg = /\d/.test(from) ? Number(from) : undefined;
      const strength = Number(speed);
      const gusts = gust === undefined || gust === "//" ? undefined : Number(gust);
      if (deg !== undefined && deg > 360) return { doubt: "a direction above 360°" };
      if (deg === 0 && strength > 0) return { doubt: "a direction of 000, which means calm, with a speed" };
      if (strength > most || (gusts ?? 0) > most) return { doubt: `a speed above ${most}` };
      if (gusts !== undefined && gusts <= strength && !gustOver)
        return { doubt: "a gust that is not above the mean wind" };
      const kt = (value: number) => Math.round(convert(value, unit, "kt") * 10) / 10;
      const wind: ReportedWind = {
        ...(deg !== undefined && { fromDeg: deg }),
        kt: kt(strength),
        ...(gusts !== undefined && { gustKt: kt(gusts) }),
      };
      draft.sky.wind = wind;
      const more = over || gustOver ? " or more" : "";
      if (from === "///") return { notObserved: `${wind.kt} kt${more}, direction not observed` };
      return `wind ${windText(wind)}${more}`;
    },
    forget: ({ sky }) => {
      delete sky.wind;
    },
  },
  {
    name: "wind between",
    shape: /^(\d{3})V(\d{3})$/,
    source: "FM 15, 15.5.3: dndndnVdxdxdx",
    read([, first, last], { sky }) {
      const between: [number, number] = [Number(first), Number(last)];
      if (between.some((deg) => deg > 360)) return { doubt: "a direction above 360°" };
      if (!sky.wind) return { doubt: "directions without a wind" };
      sky.wind = { ...sky.wind, between };
      return `wind between ${first}° and ${last}°`;
    },
  },
];
