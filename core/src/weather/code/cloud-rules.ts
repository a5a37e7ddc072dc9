import { type ClearSky, type CloudCover, cloudText } from "../report";
import type { GroupRule } from "./group-rule";

const COVERS: Record<string, CloudCover> = { FEW: "few", SCT: "scattered", BKN: "broken", OVC: "overcast" };

const CLEAR: Record<ClearSky, string> = {
  CAVOK: "no cloud below 5,000 ft",
  NSC: "no significant cloud",
  NCD: "no cloud detected by the automatic station",
  SKC: "sky clear",
  CLR: "no cloud below 12,000 ft detected",
};

/** Cloud layers; what was not observed is unknown, never "none". */
export const CLOUD_RULES: readonly GroupRule[] = [
  {
    name: "cloud",
    shape: /^(FEW|SCT|BKN|OVC)(\d{3})(CB|TCU|\/{3})?$/,
    source: "FM 15, 15.9: NsNsNshshshs in hundreds of feet, 000 is below 100 ft",
    read([, cover = "", base, kind], { sky }) {
      const layer = {
        cover: COVERS[cover] as CloudCover,
        baseFt: Number(base) * 100,
        ...((kind === "CB" || kind === "TCU") && { kind: kind as "CB" | "TCU" }),
      };
      sky.clouds.push(layer);
      return cloudText(layer);
    },
  },
  {
    name: "vertical visibility",
    shape: /^VV(\d{3})$/,
    source: "FM 15, 15.9.2: VVhshshs, sky obscured",
    read([, base], { sky }) {
      const layer = { cover: "sky hidden" as const, baseFt: Number(base) * 100 };
      sky.clouds.push(layer);
      return cloudText(layer);
    },
  },
  {
    name: "cloud not observed",
    shape: /^(?:(?:FEW|SCT|BKN|OVC)\/{3}|VV\/{3}|\/{3}\d{3}|(?:\/{3}){1,2})(CB|TCU|\/{3})?$/,
    source: "FM 15, 15.9.1: slashes where amount, height or type could not be observed",
    read([text, kind], { sky }) {
      sky.cloudUnknown = true;
      const also = kind === "CB" ? ", cumulonimbus seen" : kind === "TCU" ? ", towering cumulus seen" : "";
      if (kind === "CB" || kind === "TCU") sky.hiddenClouds = [...(sky.hiddenClouds ?? []), kind];
      const what = text.startsWith("VV")
        ? "sky obscured, vertical visibility"
        : /^[A-Z]/.test(text)
          ? "height of the cloud"
          : "cloud";
      return { notObserved: `${what} not observed${also}` };
    },
  },
  {
    name: "clear",
    shape: /^(NSC|NCD|SKC|CLR)$/,
    source: "FM 15, 15.9.1; CLR by US automatic stations (FMH-1): none below 12,000 ft",
    read([, code], { sky }) {
      sky.clear = code as ClearSky;
      return CLEAR[code as ClearSky];
    },
  },
];
