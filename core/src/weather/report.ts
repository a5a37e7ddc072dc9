import { formatNumber } from "../units/format";

/** Reported wind: direction (true) and speed, knots. */
export interface ReportedWind {
  /** Degrees true; absent if variable. */
  fromDeg?: number;
  kt: number;
  gustKt?: number;
  /** Variable between these directions, clockwise, degrees true. */
  between?: [number, number];
}

/** Cloud cover, in increasing order. */
export const CLOUD_COVERS = ["few", "scattered", "broken", "overcast", "sky hidden"] as const;
export type CloudCover = (typeof CLOUD_COVERS)[number];

export interface CloudLayer {
  cover: CloudCover;
  /** Above the field. */
  baseFt: number;
  /** Cumulonimbus or towering cumulus. */
  kind?: "CB" | "TCU";
}

/** Sky conditions at a time or for a period; elements not reported are absent. */
export interface Sky {
  wind?: ReportedWind;
  /** Metres; 10,000 means that or more. */
  visibilityM?: number;
  clouds: CloudLayer[];
  /** Weather groups as reported: "-SHRA". */
  weather: string[];
}

/** A decoded report of a station. */
export interface WeatherReport extends Sky {
  raw: string;
  station: string;
  /** Time of observation. */
  at: string;
  celsius?: number;
  dewPointC?: number;
  /** Altimeter setting (QNH), converted from any unit. */
  settingHpa?: number;
  /** Fully automatic. */
  automatic?: true;
  /** Groups that were not decoded, unchanged: a person must read them. */
  unread: string[];
}

export const SPAN_KINDS = ["first", "from", "becoming", "at times", "chance"] as const;

/** A change in a forecast, with its period. */
export interface ForecastSpan extends Sky {
  /** From then on; becoming during these hours; temporary; probable. */
  kind: (typeof SPAN_KINDS)[number];
  from: string;
  to: string;
  percent?: number;
}

/** A decoded forecast for a field. */
export interface Forecast {
  raw: string;
  station: string;
  issuedAt: string;
  from: string;
  to: string;
  spans: ForecastSpan[];
  /** Forecast maximum and minimum temperatures with their times. */
  temperatures: { at: string; celsius: number }[];
  unread: string[];
}

/** A report that cannot be used, and what to do about it. */
export class ReportError extends RangeError {
  override readonly name = "ReportError";
}

/**
 * Ceiling: the lowest layer covering more than half of the sky, or an obscured sky. Source: WMO-No. 306; 14 CFR 1.1 (from
 * memory).
 */
export function ceilingFt({ clouds }: Pick<Sky, "clouds">): number | undefined {
  const bases = clouds
    .filter(({ cover }) => cover === "broken" || cover === "overcast" || cover === "sky hidden")
    .map(({ baseFt }) => baseFt);
  return bases.length === 0 ? undefined : Math.min(...bases);
}

/** Minutes since the observation; negative if in the future. */
export function ageMin({ at }: Pick<WeatherReport, "at">, now: string): number {
  return (Date.parse(now) - Date.parse(at)) / 60_000;
}

const WORDS: Record<string, string> = {
  MI: "shallow",
  BC: "patches of",
  PR: "partial",
  DR: "drifting",
  BL: "blowing",
  SH: "showers of",
  TS: "thunderstorm",
  FZ: "freezing",
  DZ: "drizzle",
  RA: "rain",
  SN: "snow",
  SG: "snow grains",
  IC: "ice crystals",
  PL: "ice pellets",
  GR: "hail",
  GS: "small hail",
  UP: "precipitation",
  BR: "mist",
  FG: "fog",
  FU: "smoke",
  VA: "volcanic ash",
  DU: "dust",
  SA: "sand",
  HZ: "haze",
  PO: "dust whirls",
  SQ: "squalls",
  FC: "funnel cloud",
  SS: "sandstorm",
  DS: "duststorm",
};

/**
 * Weather group in words: "-SHRA" is light rain showers. Unknown codes are returned unchanged. Source: WMO-No. 306, code table
 * 4678 (from memory).
 */
export function weatherText(group: string): string {
  const [, strength = "", body = ""] = /^([+-]|VC)?([A-Z]*)$/.exec(group) ?? [];
  const parts = body.match(/../g) ?? [];
  if (parts.length === 0 || body.length % 2 === 1 || parts.some((part) => !(part in WORDS))) return group;
  const words = parts.map((part) => WORDS[part] as string);
  // "thunderstorm with rain", not "thunderstorm rain".
  const said = words.flatMap((word, i) => (parts[i - 1] === "TS" ? ["with", word] : [word])).join(" ");
  if (strength === "VC") return `${said.replace(/^showers of$/, "showers")} in the vicinity`;
  return `${strength === "+" ? "heavy " : strength === "-" ? "light " : ""}${said}`;
}

const compass = (deg: number) =>
  String(Math.round(deg) % 360 === 0 && deg > 0 ? 360 : Math.round(deg)).padStart(3, "0");

/** Wind in words: "250° 12 kt, gusts 22, between 210° and 280°". */
export function windText({ fromDeg, kt, gustKt, between }: ReportedWind): string {
  if (kt === 0 && !gustKt) return "calm";
  const from = fromDeg === undefined ? "variable" : `${compass(fromDeg)}°`;
  return [
    `${from} ${Math.round(kt)} kt`,
    ...(gustKt ? [`gusts ${Math.round(gustKt)}`] : []),
    ...(between ? [`between ${compass(between[0])}° and ${compass(between[1])}°`] : []),
  ].join(", ");
}

/** Visibility in words. Valid range: metres ≥ 0. */
export function visibilityText(metres: number): string {
  if (metres >= 10_000) return "10 km or more";
  if (metres >= 5000) return `${Math.round(metres / 1000)} km`;
  return `${formatNumber(Math.round(metres / 50) * 50)} m`;
}

/** Cloud layer in words: "broken at 1,800 ft". */
export const cloudText = ({ cover, baseFt, kind }: CloudLayer): string =>
  `${cover === "sky hidden" ? "sky obscured, vertical visibility" : `${cover} at`} ${formatNumber(baseFt)} ft${kind === "CB" ? ", cumulonimbus" : kind ? ", towering cumulus" : ""}`;
