import type { Unit } from "../units/convert";

/** Whether a finding belongs to the day (fuel, wind, entries) or to the aircraft, where it stays until repaired. */
export type Scope = "day" | "aircraft";

/** Subjects of readings. */
export const READING_TOPICS = [
  "hours",
  "fuel",
  "oil",
  "engine",
  "electrical",
  "instruments",
  "wind",
  "air",
  "mass",
  "papers",
] as const;

interface Word {
  /** Label if the checklist has no title for it. */
  label: string;
  /** Unit for judging; a tank's scale has its own. */
  unit?: Unit;
  /** What it is read of: each engine of a twin and each tank has its own reading. */
  of: "aircraft" | "engine" | "tank";
  topic: (typeof READING_TOPICS)[number];
  scope: Scope;
}

/**
 * Readings known to the calculations, by kind. A key is the kind, followed by engine or tank: "oil.level", "oil.level.left",
 * "fuel.dip.main". A key containing a dot must be listed here; any other belongs to one aircraft and is judged only by its limit.
 */
const VOCABULARY = {
  hours: { label: "Hour meter", unit: "h", of: "aircraft", topic: "hours", scope: "day" },
  /** Hour meter when the aircraft was secured. */
  "hours.after": {
    label: "Hour meter after the flight",
    unit: "h",
    of: "aircraft",
    topic: "hours",
    scope: "day",
  },
  "fuel.dip": { label: "Dipstick", unit: "cm", of: "tank", topic: "fuel", scope: "day" },
  "fuel.mark": { label: "Filler neck mark", unit: "L", of: "tank", topic: "fuel", scope: "day" },
  "fuel.sight": { label: "Sight glass", of: "tank", topic: "fuel", scope: "day" },
  "fuel.gauge": { label: "Fuel gauge", of: "tank", topic: "fuel", scope: "day" },
  "oil.level": { label: "Oil level", unit: "US qt", of: "engine", topic: "oil", scope: "day" },
  "oil.temperature": {
    label: "Oil temperature",
    unit: "°F",
    of: "engine",
    topic: "engine",
    scope: "aircraft",
  },
  "oil.pressure": { label: "Oil pressure", unit: "psi", of: "engine", topic: "engine", scope: "aircraft" },
  "magneto.base": { label: "Run-up rpm", unit: "rpm", of: "engine", topic: "engine", scope: "aircraft" },
  "magneto.right": { label: "Magneto, right", unit: "rpm", of: "engine", topic: "engine", scope: "aircraft" },
  "magneto.left": { label: "Magneto, left", unit: "rpm", of: "engine", topic: "engine", scope: "aircraft" },
  "carburettor-heat.hot": {
    label: "Rpm, carburettor heat on",
    unit: "rpm",
    of: "engine",
    topic: "engine",
    scope: "aircraft",
  },
  "carburettor-heat.cold-again": {
    label: "Rpm, carburettor heat off again",
    unit: "rpm",
    of: "engine",
    topic: "engine",
    scope: "aircraft",
  },
  idle: { label: "Idle", unit: "rpm", of: "engine", topic: "engine", scope: "aircraft" },
  "cht.hottest": { label: "Hottest CHT", unit: "°F", of: "engine", topic: "engine", scope: "aircraft" },
  suction: { label: "Suction", unit: "inHg", of: "engine", topic: "engine", scope: "aircraft" },
  "volts.before-start": {
    label: "Volts before start",
    unit: "V",
    of: "aircraft",
    topic: "electrical",
    scope: "aircraft",
  },
  "volts.charging": {
    label: "Volts, charging",
    unit: "V",
    of: "engine",
    topic: "electrical",
    scope: "aircraft",
  },
  altimeter: { label: "Altimeter", unit: "ft", of: "aircraft", topic: "instruments", scope: "aircraft" },
  /** Altimeter setting: today's pressure for the field. */
  "altimeter.setting": {
    label: "Altimeter setting",
    unit: "hPa",
    of: "aircraft",
    topic: "instruments",
    scope: "day",
  },
  "instrument.heading": {
    label: "Heading indicator",
    unit: "°",
    of: "aircraft",
    topic: "instruments",
    scope: "aircraft",
  },
  "instrument.compass": {
    label: "Compass",
    unit: "°",
    of: "aircraft",
    topic: "instruments",
    scope: "aircraft",
  },
  "instrument.climb": {
    label: "VSI",
    unit: "ft/min",
    of: "aircraft",
    topic: "instruments",
    scope: "aircraft",
  },
  "receiver.one": { label: "VOR 1", unit: "°", of: "aircraft", topic: "instruments", scope: "aircraft" },
  "receiver.two": { label: "VOR 2", unit: "°", of: "aircraft", topic: "instruments", scope: "aircraft" },
  "wind.from": { label: "Wind direction", unit: "°", of: "aircraft", topic: "wind", scope: "day" },
  "wind.speed": { label: "Wind speed", unit: "kt", of: "aircraft", topic: "wind", scope: "day" },
  "wind.gust": { label: "Gusts", unit: "kt", of: "aircraft", topic: "wind", scope: "day" },
  "air.density-altitude": {
    label: "Density altitude",
    unit: "ft",
    of: "aircraft",
    topic: "air",
    scope: "day",
  },
  "mass.front": { label: "Mass, front seats", unit: "kg", of: "aircraft", topic: "mass", scope: "day" },
  "mass.rear": { label: "Mass, rear seats", unit: "kg", of: "aircraft", topic: "mass", scope: "day" },
} as const satisfies Record<string, Word>;

export type ReadingKind = keyof typeof VOCABULARY;
export type ReadingTopic = Word["topic"];
export const READING_KINDS = Object.keys(VOCABULARY) as ReadingKind[];

/** Former keys in older checklists and events. */
const FORMERLY = new Map<string, ReadingKind>([["after.hours", "hours.after"]]);

/** Kind and subject of a reading key. */
export interface ReadingName {
  kind: ReadingKind;
  /** Engine or tank; absent for the aircraft, and for a single engine. */
  subject?: string;
}

/** Key of a reading; a single engine has no name. */
export function readingKey(kind: ReadingKind, subject?: string): string {
  return subject === undefined ? kind : `${kind}.${subject}`;
}

const names = new Map<string, ReadingName | undefined>();
/** Cache size, since keys come from outside. */
const MAX_REMEMBERED = 2000;

/** Parses a reading key; undefined if the calculations do not know it. */
export function readingName(key: string): ReadingName | undefined {
  if (names.has(key)) return names.get(key);
  const made = nameOf(key);
  if (names.size < MAX_REMEMBERED) names.set(key, made);
  return made;
}

function nameOf(key: string): ReadingName | undefined {
  const plain = FORMERLY.get(key) ?? (Object.hasOwn(VOCABULARY, key) ? (key as ReadingKind) : undefined);
  if (plain) return VOCABULARY[plain].of === "tank" ? undefined : { kind: plain };
  const kind = READING_KINDS.filter((one) => VOCABULARY[one].of !== "aircraft" && key.startsWith(`${one}.`))
    .sort((a, b) => b.length - a.length)
    .at(0);
  const subject = kind && key.slice(kind.length + 1);
  return kind && subject ? { kind, subject } : undefined;
}

/** True if a key is of one of these kinds, for any engine or tank. */
export function isReadingOf(key: string | undefined, ...kinds: readonly ReadingKind[]): boolean {
  const name = key === undefined ? undefined : readingName(key);
  return name !== undefined && kinds.includes(name.kind);
}

/** Definition of a reading kind. */
export const readingDefinition = (kind: ReadingKind): Word => VOCABULARY[kind];

/** Topic of a reading; undefined for an aircraft's own readings. */
export function topicOf(key: string | undefined): ReadingTopic | undefined {
  const name = key === undefined ? undefined : readingName(key);
  return name && readingDefinition(name.kind).topic;
}

/** Scope of a reading outside limits; an aircraft's own readings have the aircraft's scope. */
export function scopeOf(key: string): Scope {
  const name = readingName(key);
  return name ? readingDefinition(name.kind).scope : "aircraft";
}

/** Ways to inspect a tank. */
export const TANK_LOOKS = ["dip", "mark", "sight", "gauge"] as const;
export type TankLook = (typeof TANK_LOOKS)[number];

/** Frequently used keys. */
export const READING = {
  hours: "hours",
  hoursAfter: "hours.after",
  oilLevel: "oil.level",
  magnetoBase: "magneto.base",
  magnetoRight: "magneto.right",
  magnetoLeft: "magneto.left",
  carburettorHot: "carburettor-heat.hot",
  carburettorColdAgain: "carburettor-heat.cold-again",
  densityAltitude: "air.density-altitude",
  altimeter: "altimeter",
  altimeterSetting: "altimeter.setting",
  heading: "instrument.heading",
  compass: "instrument.compass",
  climb: "instrument.climb",
  receiverOne: "receiver.one",
  receiverTwo: "receiver.two",
  windFrom: "wind.from",
  windSpeed: "wind.speed",
  windGust: "wind.gust",
} as const satisfies Record<string, ReadingKind>;

/** Key of one reading of one tank. */
export const tankKey = (by: TankLook, tankId: string): string => readingKey(`fuel.${by}`, tankId);

/** Tank and method of a fuel reading; undefined for other readings. */
export function tankOfKey(key: string): { by: TankLook; tankId: string } | undefined {
  const name = readingName(key);
  const by = name && TANK_LOOKS.find((look) => name.kind === `fuel.${look}`);
  return by && name?.subject !== undefined ? { by, tankId: name.subject } : undefined;
}

/** Name of a single engine where engines are stored by name. */
export const ONLY_ENGINE = "engine";
