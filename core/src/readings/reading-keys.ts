import type { Unit } from "../units/convert";

/** Whether what is found belongs to this day (fuel, wind, what was written down) and goes with it, or to the aircraft, and stays until somebody mends it. */
export type Scope = "day" | "aircraft";

/** What a reading is about. */
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
  /** What it is called where the list has no title for it. */
  label: string;
  /** The unit in which it is judged; a tank's scale has its own. */
  unit?: Unit;
  /** What it is a reading of: each engine of a twin and each tank has its own. */
  of: "aircraft" | "engine" | "tank";
  topic: (typeof READING_TOPICS)[number];
  scope: Scope;
}

/**
 * The readings that the arithmetic knows, by their kind. An id is the kind, and behind it the engine or the tank: "oil.level", "oil.level.left",
 * "fuel.dip.main". Whatever has a dot in its id must stand here; anything else is the aircraft's own, and only its own limit judges it.
 */
const VOCABULARY = {
  hours: { label: "Hour meter", unit: "h", of: "aircraft", topic: "hours", scope: "day" },
  /** What the hour meter said when the aircraft was put away. */
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
  /** What the altimeter is set to: today's pressure for the field. */
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

/** Ids of the same readings in lists and events from before there was one vocabulary. */
const FORMERLY = new Map<string, ReadingKind>([["after.hours", "hours.after"]]);

/** What an id is a reading of. */
export interface ReadingName {
  kind: ReadingKind;
  /** The engine or the tank; absent for the aircraft's own, and for the only engine. */
  subject?: string;
}

/** The id of a reading; the only engine's carries no name. */
export function readingKey(kind: ReadingKind, subject?: string): string {
  return subject === undefined ? kind : `${kind}.${subject}`;
}

const names = new Map<string, ReadingName | undefined>();
/** Ids come from outside: so many are remembered. */
const MOST_REMEMBERED = 2000;

/** What an id is a reading of; undefined where the arithmetic does not know it: it is the aircraft's own. */
export function readingName(key: string): ReadingName | undefined {
  if (names.has(key)) return names.get(key);
  const made = nameOf(key);
  if (names.size < MOST_REMEMBERED) names.set(key, made);
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

/** Whether an id is a reading of one of these kinds, of whichever engine or tank. */
export function isReadingOf(key: string | undefined, ...kinds: readonly ReadingKind[]): boolean {
  const name = key === undefined ? undefined : readingName(key);
  return name !== undefined && kinds.includes(name.kind);
}

/** What the vocabulary says of a kind. */
export const readingDefinition = (kind: ReadingKind): Word => VOCABULARY[kind];

/** What a reading is about; undefined for the aircraft's own. */
export function topicOf(key: string | undefined): ReadingTopic | undefined {
  const name = key === undefined ? undefined : readingName(key);
  return name && readingDefinition(name.kind).topic;
}

/** Whether a number out of limits is of this day or of the aircraft; the aircraft's own readings are the aircraft's. */
export function scopeOf(key: string): Scope {
  const name = readingName(key);
  return name ? readingDefinition(name.kind).scope : "aircraft";
}

/** The ways to look at a tank. */
export const TANK_LOOKS = ["dip", "mark", "sight", "gauge"] as const;
export type TankLook = (typeof TANK_LOOKS)[number];

/** Ids that are used again and again. */
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

/** The id of one look at one tank. */
export const tankKey = (by: TankLook, tankId: string): string => readingKey(`fuel.${by}`, tankId);

/** Which tank a reading is of, and how it was looked at; undefined for a reading of something else. */
export function tankOfKey(key: string): { by: TankLook; tankId: string } | undefined {
  const name = readingName(key);
  const by = name && TANK_LOOKS.find((look) => name.kind === `fuel.${look}`);
  return by && name?.subject !== undefined ? { by, tankId: name.subject } : undefined;
}

/** What the engine of an aircraft with one is called where engines are kept by name. */
export const ONLY_ENGINE = "engine";
