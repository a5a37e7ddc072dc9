import { formatNumber } from "../units/format";

/** A wind as it is reported: from where (true north), how strong, knots. */
export interface ReportedWind {
  /** Degrees true; absent where it blows from anywhere. */
  fromDeg?: number;
  kt: number;
  gustKt?: number;
  /** Between these two directions, clockwise, degrees true. */
  between?: [number, number];
}

/** How much of the sky a layer covers, in the order of how much. */
export const CLOUD_COVERS = ["few", "scattered", "broken", "overcast", "sky hidden"] as const;
export type CloudCover = (typeof CLOUD_COVERS)[number];

export interface CloudLayer {
  cover: CloudCover;
  /** Above the field. */
  baseFt: number;
  /** Thunder cloud, or one that grows into one. */
  kind?: "CB" | "TCU";
}

/** What the sky looks like, at a moment or for a while; what was not reported is absent. */
export interface Sky {
  wind?: ReportedWind;
  /** Metres; 10,000 stands for that and more. */
  visibilityM?: number;
  clouds: CloudLayer[];
  /** Rain, fog and the like, as the groups of the report have it: "-SHRA". */
  weather: string[];
}

/** One report of a station, decoded. */
export interface WeatherReport extends Sky {
  raw: string;
  station: string;
  /** When it was observed. */
  at: string;
  celsius?: number;
  dewPointC?: number;
  /** Altimeter setting (QNH), whichever unit it was reported in. */
  settingHpa?: number;
  /** Made by a machine alone. */
  automatic?: true;
  /** Groups that were not understood, as they stand: a person has to read them. */
  unread: string[];
}

export const SPAN_KINDS = ["first", "from", "becoming", "at times", "chance"] as const;

/** What changes in a forecast, and when. */
export interface ForecastSpan extends Sky {
  /** From then on; in the course of these hours; at times; perhaps. */
  kind: (typeof SPAN_KINDS)[number];
  from: string;
  to: string;
  percent?: number;
}

/** One forecast for a field, decoded. */
export interface Forecast {
  raw: string;
  station: string;
  issuedAt: string;
  from: string;
  to: string;
  spans: ForecastSpan[];
  /** The warmest and the coldest that is expected, and when. */
  temperatures: { at: string; celsius: number }[];
  unread: string[];
}

/** A report that cannot be used, with what to do about it. */
export class ReportError extends RangeError {
  override readonly name = "ReportError";
}

/** The lowest layer that counts as a ceiling: more than half of the sky, or the sky hidden. Source: WMO-No. 306; 14 CFR 1.1 (from memory). */
export function ceilingFt({ clouds }: Pick<Sky, "clouds">): number | undefined {
  const bases = clouds
    .filter(({ cover }) => cover === "broken" || cover === "overcast" || cover === "sky hidden")
    .map(({ baseFt }) => baseFt);
  return bases.length === 0 ? undefined : Math.min(...bases);
}

/** Minutes since it was observed; below zero where it is of later than now. */
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

/** A weather group in words: "-SHRA" is light showers of rain. What is not in the code table comes back as it stands. Source: WMO-No. 306, code table 4678 (from memory). */
export function weatherWords(group: string): string {
  const [, strength = "", body = ""] = /^([+-]|VC)?([A-Z]*)$/.exec(group) ?? [];
  const parts = body.match(/../g) ?? [];
  if (parts.length === 0 || body.length % 2 === 1 || parts.some((part) => !(part in WORDS))) return group;
  const words = parts.map((part) => WORDS[part] as string);
  // "thunderstorm rain" is said with a "with" between.
  const said = words.flatMap((word, i) => (parts[i - 1] === "TS" ? ["with", word] : [word])).join(" ");
  if (strength === "VC") return `${said.replace(/^showers of$/, "showers")} in the vicinity`;
  return `${strength === "+" ? "heavy " : strength === "-" ? "light " : ""}${said}`;
}

const compass = (deg: number) =>
  String(Math.round(deg) % 360 === 0 && deg > 0 ? 360 : Math.round(deg)).padStart(3, "0");

/** A wind as it is said: "250° 12 kt, gusts 22, between 210° and 280°". */
export function windWords({ fromDeg, kt, gustKt, between }: ReportedWind): string {
  if (kt === 0 && !gustKt) return "calm";
  const from = fromDeg === undefined ? "variable" : `${compass(fromDeg)}°`;
  return [
    `${from} ${Math.round(kt)} kt`,
    ...(gustKt ? [`gusts ${Math.round(gustKt)}`] : []),
    ...(between ? [`between ${compass(between[0])}° and ${compass(between[1])}°`] : []),
  ].join(", ");
}

/** A visibility as it is said. Valid range: metres ≥ 0. */
export function visibilityWords(metres: number): string {
  if (metres >= 10_000) return "10 km or more";
  if (metres >= 5000) return `${Math.round(metres / 1000)} km`;
  return `${formatNumber(Math.round(metres / 50) * 50)} m`;
}

/** A layer as it is said: "broken at 1,800 ft". */
export const cloudWords = ({ cover, baseFt, kind }: CloudLayer): string =>
  `${cover === "sky hidden" ? "sky obscured, vertical visibility" : `${cover} at`} ${formatNumber(baseFt)} ft${kind === "CB" ? ", cumulonimbus" : kind ? ", towering cumulus" : ""}`;
