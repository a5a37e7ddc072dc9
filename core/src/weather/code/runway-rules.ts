import { formatNumber } from "../../units/format";
import type { RunwayRange } from "../report";
import type { GroupRule } from "./group-rule";

const METRES_PER_FOOT = 0.3048;
const isRunway = (id: string) => Number(id.slice(0, 2)) >= 1 && Number(id.slice(0, 2)) <= 36;
const named = (id: string) => (id.startsWith("88") ? "all runways" : `runway ${id}`);

/** Code table 0919. */
const DEPOSITS = [
  "clear and dry",
  "damp",
  "wet",
  "rime or frost",
  "dry snow",
  "wet snow",
  "slush",
  "ice",
  "compacted snow",
  "frozen ruts",
];
/** Code table 0366. */
const BRAKING: Record<string, string> = {
  91: "poor",
  92: "medium to poor",
  93: "medium",
  94: "medium to good",
  95: "good",
  99: "unreliable",
};
/** Code table 1079, above 90 mm. */
const DEPTHS_MM: Record<string, number> = { 92: 100, 93: 150, 94: 200, 95: 250, 96: 300, 97: 350, 98: 400 };

function stateText(deposit: string, depth: string, friction: string): string {
  const millimetres = depth === "//" || depth === "99" ? undefined : (DEPTHS_MM[depth] ?? Number(depth));
  const braking =
    friction === "//" ? undefined : (BRAKING[friction] ?? `friction 0.${friction.padStart(2, "0")}`);
  return [
    deposit === "/" ? "deposit not reported" : DEPOSITS[Number(deposit)],
    ...(depth === "99" ? ["not usable"] : millimetres ? [`${formatNumber(millimetres)} mm`] : []),
    ...(braking ? [braking.startsWith("friction") ? braking : `braking ${braking}`] : []),
  ].join(", ");
}

const TRENDS: Record<string, string> = { U: ", improving", D: ", getting worse", N: "" };
const SIGNS: Record<string, "more" | "less"> = { P: "more", M: "less" };
const signed = (sign: string, metres: number) =>
  `${sign === "P" ? "more than " : sign === "M" ? "less than " : ""}${formatNumber(metres)} m`;

/** Runway visual range, runway condition, snow closure and wind shear. */
export const RUNWAY_RULES: readonly GroupRule[] = [
  {
    name: "runway visual range",
    shape: /^R(\d\d[LCR]{0,2})\/([PM]?)(\d{4})(?:V([PM]?)(\d{4}))?(FT)?(?:\/?([UDN]))?$/,
    source: "FM 15, 15.7: RDRDR/VRVRVRVRi, with V for a range, P and M for its limits; US form in feet",
    read([, id = "", sign = "", low, highSign = "", high, feet, trend = ""], draft) {
      if (!isRunway(id)) return { doubt: "an unknown runway" };
      const metres = (value: string | undefined) => Math.round(Number(value) * (feet ? METRES_PER_FOOT : 1));
      const range: RunwayRange = {
        runway: id,
        m: metres(low),
        ...(SIGNS[sign] && { is: SIGNS[sign] as "more" | "less" }),
        ...(high !== undefined && { toM: metres(high) }),
      };
      draft.ranges.push(range);
      const upTo = high === undefined ? "" : ` to ${signed(highSign, range.toM as number)}`;
      return `runway visual range ${id}: ${signed(sign, range.m)}${upTo}${TRENDS[trend] ?? ""}`;
    },
  },
  {
    name: "runway visual range not observed",
    shape: /^R(\d\d[LCR]{0,2})\/\/{4}$/,
    source: "FM 15, 15.7: not observed",
    read: ([, id]) => ({ notObserved: `runway visual range ${id} not observed` }),
  },
  {
    name: "closed by snow",
    shape: /^(?:R(\d\d[LCR]?)\/)?SNOCLO$/,
    source: "FM 15, 15.13.6: aerodrome or runway closed by snow",
    read([, id], { closed }) {
      const all = id === undefined || id.startsWith("88");
      closed.push(all ? "all" : id);
      return all ? "field closed by snow" : `runway ${id} closed by snow`;
    },
  },
  {
    name: "runway cleared",
    shape: /^(?:R(\d\d[LCR]?)\/|(\d\d))CLRD(\d\d|\/\/)$/,
    source: "FM 15, 15.13.6: deposits have ceased to exist",
    read: ([, id, old]) => `${named(id ?? old ?? "88")} cleared`,
  },
  {
    name: "runway condition",
    shape: /^(?:R(\d\d[LCR]?)\/|(\d\d))([\d/])([\d/])(\d\d|\/\/)(\d\d|\/\/)$/,
    source: "FM 15, 15.13.6: deposit, extent, depth, braking (code tables 0919, 0519, 1079, 0366)",
    read: ([, id, old, deposit = "/", , depth = "//", friction = "//"]) =>
      `${named(id ?? old ?? "88")}: ${stateText(deposit, depth, friction)}`,
  },
  {
    name: "wind shear",
    shape: /^WS (?:(ALL) RWY|R(?:WY)?(\d\d[LCR]?))$/,
    source: "FM 15, 15.13.3: wind shear in the take-off or approach path",
    read([, all, id = ""], draft) {
      if (!all && !isRunway(id)) return { doubt: "an unknown runway" };
      const where = all ? "all runways" : `runway ${id}`;
      draft.windShear.push(where);
      return `wind shear, ${where}`;
    },
  },
  {
    name: "wind shear forecast",
    shape: /^WS(\d{3})\/(\d{3})(\d{2,3})KT$/,
    source: "US form of forecasts: height in hundreds of feet, wind at that height",
    read([, height, from, kt], draft) {
      if (Number(from) > 360) return { doubt: "a direction above 360°" };
      const where = `at ${formatNumber(Number(height) * 100)} ft: ${from}° ${Number(kt)} kt`;
      draft.windShear.push(where);
      return `wind shear ${where}`;
    },
  },
];
