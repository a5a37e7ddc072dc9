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

/** How a report says that there is no cloud to name. */
export const CLEAR_SKIES = ["CAVOK", "NSC", "NCD", "SKC", "CLR"] as const;
export type ClearSky = (typeof CLEAR_SKIES)[number];

/** Sky conditions at a time or for a period; elements not reported are absent. */
export interface Sky {
  wind?: ReportedWind;
  /** Prevailing visibility, metres; 10,000 means that or more. */
  visibilityM?: number;
  /** The visibility is below or above this value; absent: it is this value. */
  visibilityIs?: "less" | "more";
  /** Least visibility, if another one was reported with its direction. */
  leastVisibility?: { m: number; toward: string };
  clouds: CloudLayer[];
  /** No cloud to name, as reported. Absent with no clouds: cloud was not reported. */
  clear?: ClearSky;
  /** True if cloud, or a part of it, was not observed or could not be read. */
  cloudUnknown?: true;
  /** Kinds of cloud seen at an unknown height. */
  hiddenClouds?: ("CB" | "TCU")[];
  /** Weather groups as reported: "-SHRA". */
  weather: string[];
  /** "No significant weather", stated. */
  noWeather?: true;
  /** True if an automatic station could not observe present weather. */
  weatherUnknown?: true;
}

/** Runway visual range. */
export interface RunwayRange {
  runway: string;
  m: number;
  is?: "less" | "more";
  /** Upper end, if it varies. */
  toM?: number;
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
  /** Runway visual ranges. */
  ranges?: RunwayRange[];
  /** Where wind shear was reported: "runway 24", "all runways". */
  windShear?: string[];
  /** Runways closed by snow; "all" for the whole field. */
  closed?: string[];
  /** Changes expected within two hours. */
  trend?: ForecastSpan[];
  /** Groups that were doubted or not understood, unchanged: a person must read them. */
  unread: string[];
}

/** A trend is valid for two hours after the observation. Source: WMO-No. 306, FM 15, 15.14 (from memory). */
export const TREND_MS = 2 * 3_600_000;

export const SPAN_KINDS = ["first", "from", "becoming", "at times", "chance"] as const;

/** A change in a forecast, with its period. */
export interface ForecastSpan extends Sky {
  /** From then on; becoming during these hours; temporary; probable. */
  kind: (typeof SPAN_KINDS)[number];
  from: string;
  to: string;
  percent?: number;
  /** Wind shear above the field: "at 1,000 ft: 240° 60 kt". */
  windShear?: string[];
  /** Groups of this part that were doubted or not understood. */
  unread?: string[];
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

/** Lowest layer covering more than half of the sky. Source: WMO-No. 306; 14 CFR 1.1 (from memory). */
export function ceilingFt({ clouds }: Pick<Sky, "clouds">): number | undefined {
  const bases = clouds
    .filter(({ cover }) => cover === "broken" || cover === "overcast" || cover === "sky hidden")
    .map(({ baseFt }) => baseFt);
  return bases.length === 0 ? undefined : Math.min(...bases);
}

/** Height up to which a clear sky is reported, ft; undefined without a limit. Source: WMO-No. 306; FMH-1 (from memory). */
const CLEAR_UP_TO_FT: Record<ClearSky, number | undefined> = {
  CAVOK: 5000,
  NSC: 5000,
  NCD: undefined,
  SKC: undefined,
  CLR: 12_000,
};

/** What is known of the ceiling: it lies between these heights, ft. */
export interface KnownCeiling {
  /** No ceiling below this height; infinite if there is none at all. */
  atLeastFt: number;
  /** A ceiling at or below this height; infinite if none was reported. */
  atMostFt: number;
}

/**
 * Ceiling by a report. Cloud that was not observed can be anywhere, so that the ceiling is known only from above, or not at all.
 * Source: WMO-No. 306, FM 15, 15.9 (from memory).
 */
export function knownCeiling(sky: Sky & { raw?: string }): KnownCeiling {
  const atMostFt = ceilingFt(sky) ?? Number.POSITIVE_INFINITY;
  if (sky.cloudUnknown) return { atLeastFt: 0, atMostFt };
  if (atMostFt < Number.POSITIVE_INFINITY) return { atLeastFt: atMostFt, atMostFt };
  if (sky.clouds.length > 0) return { atLeastFt: atMostFt, atMostFt };
  const clear = sky.clear ?? clearByText(sky.raw);
  return { atLeastFt: clear ? (CLEAR_UP_TO_FT[clear] ?? atMostFt) : 0, atMostFt };
}

/** Reports recorded by earlier versions do not say how the sky was clear; their text does. */
const clearByText = (raw = ""): ClearSky | undefined =>
  CLEAR_SKIES.find((code) => new RegExp(`\\b${code}\\b`).test(raw));

/** Least visibility reported, m; undefined if none was, or only an upper limit. */
export function leastVisibilityM({ visibilityM, leastVisibility }: Sky): number | undefined {
  return visibilityM === undefined ? undefined : Math.min(visibilityM, leastVisibility?.m ?? visibilityM);
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
