import { seededRandom } from "@cravix/core/units/seeded-random";

/** Location of a simulated station. */
export interface StationPlace {
  station: string;
  elevationFt: number;
  lat: number;
  lon: number;
}

/** Simulated air at a place and time. */
interface Air {
  fromDeg: number;
  kt: number;
  gustKt?: number;
  between?: [number, number];
  celsius: number;
  dewPointC: number;
  hPa: number;
  visibilityM: number;
  weather: string;
  cloud: { cover: string; baseFt: number; kind?: string }[];
}

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Hours between successive lows. */
const PASSAGE_H = 74;

/** Deterministic uniform numbers for a time. */
const chance = (station: string, at: number, what: number): number =>
  seededRandom([...station].reduce((sum, letter) => sum * 31 + letter.charCodeAt(0), what * 7919) + at)();

const two = (value: number) => String(Math.abs(Math.round(value))).padStart(2, "0");
const signed = (value: number) => `${Math.round(value) < 0 ? "M" : ""}${two(value)}`;
const turned = (deg: number) => (Math.round(deg / 10) * 10 + 3600) % 360 || 360;
const three = (value: number) => String(value).padStart(3, "0");

/**
 * Simulated weather of a field: a low passes every three days; wind veers behind it and gusts by day, pressure falls ahead of it,
 * its front brings rain, and on calm nights in between fog forms. Depends only on place and time.
 */
export function airAt({ station, elevationFt, lat }: StationPlace, at: Date): Air {
  const t = at.getTime();
  const phase = ((t / HOUR + chance(station, 0, 1) * PASSAGE_H) % PASSAGE_H) / PASSAGE_H;
  const wave = Math.cos(2 * Math.PI * phase);
  const year = (t % (365.25 * DAY)) / (365.25 * DAY);
  const hour = (t % DAY) / HOUR;
  // Pressure is high between lows; 0.5 is the front.
  const hPa = 1012 + 11 * wave + 2 * (chance(station, Math.floor(t / DAY), 2) - 0.5);
  const front = Math.exp(-(((phase - 0.5) / 0.05) ** 2));
  const season = -Math.cos(2 * Math.PI * (year - 0.055)) * (lat >= 0 ? 1 : -1);
  const warm = Math.sin((Math.PI * (hour - 8)) / 12);
  const slow = Math.floor(t / (2 * HOUR));
  const celsius =
    11 +
    8 * season +
    4 * warm * (0.4 + 0.6 * Math.max(0, wave)) -
    (phase > 0.5 ? 2 : 0) -
    elevationFt * 0.00198;
  const still = Math.max(0, wave) ** 2;
  const kt = Math.round(
    3 + 17 * (1 - still) * (0.6 + 0.4 * chance(station, slow, 3)) + 3 * Math.max(0, warm),
  );
  const from = 200 + 110 * phase + 30 * (chance(station, slow, 4) - 0.5) + (phase > 0.52 ? 50 : 0);
  const gusty = kt >= 12 && (warm > 0 || front > 0.3);
  const foggy = still > 0.75 && warm < -0.55 && kt <= 5;
  const spread = foggy
    ? 0.3
    : 2 + 7 * Math.max(0, warm) + 3 * (1 - front) * (0.4 + 0.6 * chance(station, slow, 5));
  const base = Math.max(100, Math.round((foggy ? 100 : front > 0.4 ? 900 : 400 * spread + 600) / 100) * 100);
  const rain = front > 0.25;
  return {
    fromDeg: turned(from),
    kt: foggy ? Math.min(3, kt) : kt,
    ...(gusty && { gustKt: Math.round(kt * (1.35 + 0.25 * chance(station, Math.floor(t / HOUR), 6))) }),
    ...(kt >= 8 && gusty && { between: [turned(from - 40), turned(from + 30)] as [number, number] }),
    celsius,
    dewPointC: celsius - spread,
    hPa,
    visibilityM: foggy ? 300 : rain ? 4000 : 10_000,
    weather: foggy ? "FG" : front > 0.6 ? "RA" : rain ? "-RA" : "",
    cloud: foggy
      ? []
      : rain
        ? [
            { cover: "SCT", baseFt: base },
            { cover: "OVC", baseFt: base + 1200 },
          ]
        : [
            {
              cover: wave > 0.3 ? "FEW" : "BKN",
              baseFt: base,
              ...(wave < -0.6 && warm > 0.5 && { kind: "TCU" }),
            },
          ],
  };
}

function windGroup({ fromDeg, kt, gustKt }: Air): string {
  if (kt < 1) return "00000KT";
  return `${kt <= 3 ? "VRB" : three(fromDeg)}${two(kt)}${gustKt ? `G${two(gustKt)}` : ""}KT`;
}

const skyGroups = (air: Air): string[] => [
  air.visibilityM >= 10_000 ? "9999" : three(air.visibilityM).padStart(4, "0"),
  ...(air.weather ? [air.weather] : []),
  ...(air.weather === "FG"
    ? ["VV001"]
    : air.cloud.map(({ cover, baseFt, kind = "" }) => `${cover}${three(Math.round(baseFt / 100))}${kind}`)),
];

const stamp = (at: Date) => `${two(at.getUTCDate())}${two(at.getUTCHours())}${two(at.getUTCMinutes())}Z`;

/** Latest report of a station, issued at twenty past and ten to the hour. */
export function reportOf(place: StationPlace, now: Date): { at: string; text: string } {
  const half = Math.floor((now.getTime() - 20 * 60_000) / (HOUR / 2)) * (HOUR / 2) + 20 * 60_000;
  const at = new Date(half);
  const air = airAt(place, at);
  const groups = [
    "METAR",
    place.station,
    stamp(at),
    windGroup(air),
    ...(air.between && air.kt > 3 ? [`${three(air.between[0])}V${three(air.between[1])}`] : []),
    ...skyGroups(air),
    `${signed(air.celsius)}/${signed(Math.min(Math.round(air.dewPointC), Math.round(air.celsius)))}`,
    `Q${String(Math.floor(air.hPa)).padStart(4, "0")}`,
  ];
  return { at: at.toISOString(), text: groups.join(" ") };
}

const hourStamp = (at: Date) => `${two(at.getUTCDate())}${two(at.getUTCHours())}`;
const FORECAST_H = 18;

/** Current forecast: issued every six hours for eighteen. Derived from the simulated weather, with less detail. */
export function forecastOf(place: StationPlace, now: Date): { at: string; text: string } {
  const issue = Math.floor((now.getTime() - 5 * HOUR) / (6 * HOUR)) * 6 * HOUR + 5 * HOUR;
  const from = new Date(issue + HOUR);
  const hours = Array.from({ length: FORECAST_H + 1 }, (_, i) => new Date(from.getTime() + i * HOUR));
  const airs = hours.map((at) => airAt(place, at));
  const [first] = airs as [Air, ...Air[]];
  const groups = [
    "TAF",
    place.station,
    stamp(new Date(issue)),
    `${hourStamp(from)}/${hourStamp(hours.at(-1) as Date)}`,
    windGroup(first),
    ...skyGroups(first),
  ];
  const extreme = (pick: (a: Air, b: Air) => Air) => airs.indexOf(airs.reduce(pick));
  const high = extreme((a, b) => (b.celsius > a.celsius ? b : a));
  const low = extreme((a, b) => (b.celsius < a.celsius ? b : a));
  groups.push(
    `TX${signed((airs[high] as Air).celsius)}/${hourStamp(hours[high] as Date)}Z`,
    `TN${signed((airs[low] as Air).celsius)}/${hourStamp(hours[low] as Date)}Z`,
  );
  let said = first;
  for (let i = 3; i < FORECAST_H - 2; i += 3) {
    const air = airs[i] as Air;
    const turn = Math.abs(((air.fromDeg - said.fromDeg + 540) % 360) - 180);
    if (turn < 60 && Math.abs(air.kt - said.kt) < 10 && air.weather === said.weather) continue;
    groups.push(
      "BECMG",
      `${hourStamp(hours[i - 1] as Date)}/${hourStamp(hours[i + 1] as Date)}`,
      windGroup(air),
      ...skyGroups(air),
    );
    said = air;
  }
  return { at: new Date(issue).toISOString(), text: groups.join(" ") };
}
