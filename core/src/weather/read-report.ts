import { type ICloud, type IWind, parseMetar, parseTAF } from "metar-taf-parser";
import { convert, type Unit } from "../units/convert";
import {
  type CloudCover,
  type CloudLayer,
  type Forecast,
  type ForecastSpan,
  ReportError,
  type ReportedWind,
  type Sky,
  type WeatherReport,
} from "./report";
import { type GroupKind, groupKind, groupsOf } from "./report-groups";

/** Maximum length of a report. */
const MAX_CHARACTERS = 2000;
const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

interface Parsed {
  wind?: IWind;
  visibility?: { value: number; unit: string };
  cavok?: true;
  verticalVisibility?: number;
  clouds: ICloud[];
  weatherConditions: { intensity?: string; descriptive?: string; phenomenons: string[] }[];
}

/**
 * Decodes a METAR or SPECI. Unknown or impossible groups (a wind from 400°) are listed in `unread` and not used. `now` determines
 * the month of the day: the latest not after tomorrow. Throws ReportError for a text that is not a report: too long, without
 * station or time, with an invalid day, or empty. Source: WMO-No. 306, FM 15, through the library metar-taf-parser, checked
 * against the text group by group.
 */
export function readReport(text: string, now: string): WeatherReport {
  const groups = asReport(text);
  const place = groups.findIndex((group) => groupKind(group) === "time");
  const station = groups[place - 1];
  if (place < 1 || !station || !STATION.test(station))
    throw new ReportError("Station or time missing. A report starts like “METAR ABCD 270650Z”.");
  const at = dateOf(groups[place] as string, now);
  const changes = groups.findIndex((group, i) => i > place && /^(BECMG|TEMPO|NOSIG)$/.test(group));
  const end = changes < 0 ? groups.length : changes;
  const own = groups.slice(place + 1, end);
  if (own.includes("NIL")) throw new ReportError("The station reported nothing (NIL).");
  if (own.length === 0) throw new ReportError("Nothing after station and time. Enter the complete report.");
  // Only well-formed groups go to the library, which silently drops or misreads others.
  const wellFormed = own.filter((group) => known(group));
  const parsed = parseMetar(`${station} ${groups[place]} ${wellFormed.join(" ")}`, { issued: new Date(at) });
  const sky = skyOf(parsed, own);
  const kept = (kind: GroupKind) => own.some((group) => groupKind(group) === kind);
  const { temperature, dewPoint, altimeter } = parsed;
  const unread = [...sky.unread, ...own.filter((group) => !known(group))];
  const take = (ok: boolean, kind: GroupKind): boolean => {
    if (kept(kind) && !ok) unread.push(...own.filter((group) => groupKind(group) === kind));
    return kept(kind) && ok;
  };
  const warm =
    temperature !== undefined &&
    temperature >= -60 &&
    temperature <= 60 &&
    (dewPoint === undefined || dewPoint <= temperature);
  const hpa = altimeter && Math.round(convert(altimeter.value, altimeter.unit as Unit, "hPa") * 10) / 10;
  const pressed = hpa !== undefined && hpa >= 870 && hpa <= 1085;
  return {
    raw: groups.join(" "),
    station,
    at,
    ...sky.sky,
    ...(take(warm, "temperature") && {
      celsius: temperature as number,
      ...(dewPoint !== undefined && { dewPointC: dewPoint }),
    }),
    ...(take(pressed, "pressure") && { settingHpa: hpa as number }),
    ...(own.includes("AUTO") && { automatic: true as const }),
    unread: [...new Set(unread)],
  };
}

/**
 * Decodes a TAF. As `readReport`: unknown groups are in `unread`. Throws ReportError for a text that is not a forecast, and for a
 * cancelled one.
 * Source: WMO-No. 306, FM 51, through metar-taf-parser.
 */
export function readForecast(text: string, now: string): Forecast {
  const groups = asReport(text).filter(
    (group, i, all) => !(groupKind(group) === "flag" && i < 3 && all.length > 3),
  );
  const validity = groups.findIndex((group) => groupKind(group) === "validity");
  const time = groups.findIndex((group) => groupKind(group) === "time");
  const station = groups[(time < 0 || time > validity ? validity : time) - 1];
  if (validity < 1 || !station || !STATION.test(station))
    throw new ReportError(
      "Station or validity missing. A forecast starts like “TAF ABCD 270500Z 2706/2715”.",
    );
  if (groups.includes("CNL")) throw new ReportError("This forecast was cancelled.");
  if (groups.includes("NIL")) throw new ReportError("There is no forecast (NIL).");
  const hours = groups[validity] as string;
  const from = hourOf(hours.slice(0, 4), now);
  const issuedAt = time < 0 || time > validity ? from : dateOf(groups[time] as string, now);
  const own = groups.slice(validity + 1);
  const wellFormed = own.filter((group) => known(group));
  const parsed = parseTAF(
    `TAF ${station} ${groups[time] ?? `${hours.slice(0, 4)}00Z`} ${hours} ${wellFormed.join(" ")}`,
    { issued: new Date(issuedAt) },
  );
  const to = parsed.validity.end.toISOString();
  if (Date.parse(to) <= Date.parse(from))
    throw new ReportError("The validity ends before it starts. Check the forecast.");
  const change = own.findIndex((group) => groupKind(group) === "change");
  const firstChange = change < 0 ? own.length : change;
  const spans: ForecastSpan[] = [];
  const unread = own.filter((group) => !known(group));
  const put = (part: Parsed, text: readonly string[], more: Omit<ForecastSpan, keyof Sky>) => {
    const { sky, unread: left } = skyOf(part, text);
    unread.push(...left);
    spans.push({ ...sky, ...more });
  };
  put(parsed as unknown as Parsed, own.slice(0, firstChange), { kind: "first", from, to });
  for (const trend of parsed.trends) {
    const raw = groupsOf(trend.raw);
    const { probability } = trend;
    const kind = kindOf(String(trend.type), probability);
    const end = "end" in trend.validity ? (trend.validity.end as Date | undefined) : undefined;
    put(trend as unknown as Parsed, raw, {
      kind,
      from: trend.validity.start.toISOString(),
      to: end?.toISOString() ?? to,
      ...(probability !== undefined && { percent: probability }),
    });
  }
  const temperatures = [parsed.maxTemperature, parsed.minTemperature].flatMap((one) =>
    one ? [{ at: one.date.toISOString(), celsius: one.temperature }] : [],
  );
  return {
    raw: groups.join(" "),
    station,
    issuedAt,
    from,
    to,
    spans,
    temperatures,
    unread: [...new Set(unread)],
  };
}

const STATION = /^[A-Z][A-Z0-9]{3}$/;

const kindOf = (type: string, probability: number | undefined): ForecastSpan["kind"] =>
  probability !== undefined
    ? "chance"
    : type === "FM"
      ? "from"
      : type === "BECMG"
        ? "becoming"
        : type === "PROB"
          ? "chance"
          : "at times";

function asReport(text: string): string[] {
  if (text.trim() === "") throw new ReportError("Enter a METAR or TAF.");
  if (text.length > MAX_CHARACTERS)
    throw new ReportError("Too long for one report. Enter one report at a time.");
  return groupsOf(text);
}

/** Groups with a known form. */
const known = (group: string) => groupKind(group) !== undefined || /^\d \d\/\d{1,2}SM$/.test(group);

/** Nearest date with this day of the month, not after tomorrow. */
function dateOf(group: string, now: string): string {
  const [day, hour, minute] = [group.slice(0, 2), group.slice(2, 4), group.slice(4, 6)].map(Number) as [
    number,
    number,
    number,
  ];
  return nearest(day, hour, minute, now);
}

const hourOf = (group: string, now: string) =>
  nearest(Number(group.slice(0, 2)), Number(group.slice(2, 4)), 0, now, 2 * DAY);

function nearest(day: number, hour: number, minute: number, now: string, ahead = DAY): string {
  if (day < 1 || day > 31 || hour > 24 || minute > 59)
    throw new ReportError("The day or time is not possible. Check the report.");
  const today = new Date(now);
  for (let back = -1; back < 4; back++) {
    const at = new Date(Date.UTC(today.getUTCFullYear(), today.getUTCMonth() - back, day, hour, minute));
    // Skips days a month does not have.
    if (at.getTime() > today.getTime() + ahead || (hour < 24 && at.getUTCDate() !== day)) continue;
    return at.toISOString();
  }
  throw new ReportError("The date is not possible. Check the report.");
}

const COVERS: Record<string, CloudCover> = { FEW: "few", SCT: "scattered", BKN: "broken", OVC: "overcast" };

function skyOf(parsed: Parsed, groups: readonly string[]): { sky: Sky; unread: string[] } {
  const unread: string[] = [];
  const of = (kind: GroupKind) => groups.filter((group) => groupKind(group) === kind);
  const wind = parsed.wind && of("wind").length > 0 ? windOf(parsed.wind, of("wind")) : undefined;
  if (of("wind").length > 0 && !wind) unread.push(...of("wind"));
  if (of("between").length > 0 && !wind?.between) unread.push(...of("between"));
  const visibilityM = visibilityOf(parsed, groups);
  if (of("visibility").length > 0 && visibilityM === undefined) unread.push(...of("visibility"));
  const clouds: CloudLayer[] = parsed.clouds.flatMap(({ quantity, height, type }): CloudLayer[] => {
    const cover = COVERS[String(quantity)];
    if (!cover || height === undefined) return [];
    const kind = String(type);
    return [{ cover, baseFt: height, ...((kind === "CB" || kind === "TCU") && { kind }) }];
  });
  const up = of("cloud").find((group) => group.startsWith("VV"));
  if (up) clouds.push({ cover: "sky hidden", baseFt: Number(up.slice(2)) * 100 });
  if (clouds.length < of("cloud").length) unread.push(...of("cloud").slice(clouds.length));
  return {
    sky: {
      ...(wind && { wind }),
      ...(visibilityM !== undefined && { visibilityM }),
      clouds: clouds.sort((a, b) => a.baseFt - b.baseFt),
      weather: of("weather"),
    },
    unread,
  };
}

/** Unit by the group's suffix: the library takes kilometres per hour for knots. */
const SPEEDS: Record<string, Unit> = { KT: "kt", MPS: "m/s", KMH: "km/h" };

function windOf(
  { degrees, direction, speed, gust, minVariation, maxVariation }: IWind,
  [group = ""]: readonly string[],
): ReportedWind | undefined {
  const from = SPEEDS[/[A-Z]+$/.exec(group)?.[0].replace(/^VRB/, "") ?? ""];
  if (!from || (degrees !== undefined && degrees > 360)) return undefined;
  const kt = (value: number) => Math.round(convert(value, from, "kt") * 10) / 10;
  // "P99KT": more than that.
  if (/P\d/.test(group)) return undefined;
  const between =
    minVariation !== undefined && maxVariation !== undefined && minVariation <= 360 && maxVariation <= 360
      ? ([minVariation, maxVariation] as [number, number])
      : undefined;
  if (gust !== undefined && gust < speed) return undefined;
  return {
    ...(degrees !== undefined && String(direction) !== "VRB" && { fromDeg: degrees }),
    kt: kt(speed),
    ...(gust !== undefined && { gustKt: kt(gust) }),
    ...(between && { between }),
  };
}

const METRES_PER_STATUTE_MILE = 1609.344;

function visibilityOf({ visibility, cavok }: Parsed, groups: readonly string[]): number | undefined {
  if (cavok || groups.includes("CAVOK")) return 10_000;
  if (!visibility) return undefined;
  const metres = visibility.unit === "SM" ? visibility.value * METRES_PER_STATUTE_MILE : visibility.value;
  return metres >= 9999 ? 10_000 : Math.round(metres);
}
