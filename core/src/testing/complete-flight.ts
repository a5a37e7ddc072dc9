import type { Airfield, Item } from "../aircraft/aircraft-type";
import { type ComposeInput, composeList } from "../checklist/list/compose-list";
import type { EventData, PreflightEvent } from "../checklist/stream/events";
import type { LoadingProfile } from "../mass-and-balance/loading-profile";
import type { MinimaSet } from "../minima/minima";
import type { RuleSet } from "../rules/rule-set";
import type { WeatherReport } from "../weather/report";
import { event, item, LIST_INPUT, source, type } from "./small-aircraft";

/** A flight of which everything is known; tests take away one thing at a time. */
export const AT = "2026-05-01T12:00:00.000Z";

export const FIELD: Airfield = {
  format: "cravix.airfield/1",
  id: "f",
  name: "Field",
  elevationFt: 20,
  lat: 53.4,
  lon: 2.1,
  station: "QXMP",
  runways: [
    {
      id: "24",
      headingDeg: 240,
      lengthM: 900,
      surface: "asphalt",
      declared: { toraM: 900, todaM: 900, asdaM: 900, ldaM: 900 },
    },
  ],
};

export const RULES: RuleSet = {
  format: "cravix.rule-set/1",
  id: "r",
  name: "r",
  reserves: [{ when: "day", minutes: 30, source }],
  night: { begins: "sunset", source },
  minima: { visibilityM: 5000, ceilingFt: 1000, source },
};

export const REPORT: WeatherReport = {
  raw: "METAR QXMP 011150Z 25010KT 9999 NSC 15/08 Q1013",
  station: "QXMP",
  at: "2026-05-01T11:50:00.000Z",
  wind: { fromDeg: 250, kt: 10 },
  visibilityM: 10_000,
  clouds: [],
  clear: "NSC",
  weather: [],
  celsius: 15,
  dewPointC: 8,
  settingHpa: 1013,
  unread: [],
};

const tank = {
  id: "main",
  name: "Main",
  capacityL: 100,
  unusableL: 2,
  sight: {
    unit: "L" as const,
    points: [
      { at: 0, litres: 0 },
      { at: 100, litres: 100 },
    ],
    source,
  },
};

export const LOADING: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  datum: "the firewall",
  weighing: { date: "2025-01-01", emptyKg: 700, armMm: 1000, source },
  stations: [
    { id: "front", name: "front seats", kind: "seat", armMm: 1000, pilot: true },
    { id: "rear", name: "rear seats", kind: "seat", armMm: 1100 },
  ],
  tanks: [{ tank: "main", armMm: 1000 }],
  envelope: {
    corners: [
      { kg: 650, armMm: 900 },
      { kg: 1110, armMm: 900 },
      { kg: 1110, armMm: 1200 },
      { kg: 650, armMm: 1200 },
    ],
    source,
  },
  maxTakeoffKg: { value: 1110, source },
};

export const STUDENT: MinimaSet = {
  of: "authorisation",
  minima: { windKt: 15, crosswindKt: 8, ceilingFt: 1500, visibilityM: 8000 },
  source,
};

const reads = (id: string, key: string, unit: "L" | "kt" | "°" | "kg"): Item =>
  item(id, "papers", { kind: "measure", reading: { key, unit, decimals: 0 } });

export const POWERED_ITEMS: Item[] = [
  item("runway", "papers", { kind: "choice", choicesFrom: "runways" }),
  reads("dip", "fuel.sight.main", "L"),
];

const { oil: _oil, ...bare } = type;

export const POWERED: ComposeInput["type"] = {
  ...bare,
  items: POWERED_ITEMS,
  crosswind: { kt: 15, source },
  fuel: { tanks: [tank], taxiL: 4, burnLPerH: { value: 30, source } },
  performance: {
    takeOff: { kind: "single", kg: 1110, rollM: 250, over50M: 455, source },
    landing: { kind: "single", kg: 1110, rollM: 175, over50M: 400, source },
    liftOffKt: 55,
    approachKt: 62,
    climbKt: 76,
  },
};

export const COMPLETE: ComposeInput = {
  ...LIST_INPUT,
  aircraft: { ...LIST_INPUT.aircraft, ownItems: [] },
  type: POWERED,
  airfield: FIELD,
  rules: RULES,
  loading: LOADING,
  papers: { timeZone: "UTC", meters: [], totals: {}, dues: [] },
  pilotInDate: "within limits",
};

/** An event of this flight. */
export const told = <T extends PreflightEvent["type"]>(kind: T, data: EventData[T]): PreflightEvent =>
  ({ ...event(kind, data), at: AT }) as PreflightEvent;

export interface FlightEvents {
  weather?: EventData["weather.told"] | undefined;
  load?: Record<string, number> | undefined;
  runway?: string | undefined;
  dipL?: number | undefined;
  start?: Partial<EventData["preflight.started"]>;
}

/** Its checklist and its events. A value given as undefined was not entered. */
export function completeFlight(of: FlightEvents = {}, input: Partial<ComposeInput> = {}) {
  const has = (part: keyof FlightEvents) => part in of;
  const weather = has("weather") ? of.weather : { report: REPORT, variationDeg: 0 };
  const load = has("load") ? of.load : { front: 160, rear: 60 };
  const runway = has("runway") ? of.runway : "24";
  const dipL = has("dipL") ? of.dipL : 80;
  const conditions = input.conditions ?? [];
  const events: PreflightEvent[] = [
    told("preflight.started", {
      registration: "QX-TST",
      listHash: "h",
      conditions,
      plannedFlightMin: 60,
      ...(load && { plannedLoad: { stations: load } }),
      ...of.start,
    }),
    ...(weather ? [told("weather.told", weather)] : []),
    ...(runway ? [told("item.answered", { itemId: "runway", outcome: "checked", value: runway })] : []),
    ...(dipL === undefined
      ? []
      : [told("reading.taken", { itemId: "dip", key: "fuel.sight.main", value: dipL, unit: "L" })]),
  ];
  return { list: composeList({ ...COMPLETE, ...input }), events };
}
