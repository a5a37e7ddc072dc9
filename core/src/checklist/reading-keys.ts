/** The readings that the arithmetic knows by name. A list file uses these keys in its measuring items. */
export const READING = {
  hours: "hours",
  /** What the hour meter said when the aircraft was put away. */
  hoursAfter: "after.hours",
  /** One look at one tank: by stick, mark, sight glass or gauge. */
  tank: (by: "dip" | "mark" | "sight" | "gauge", tankId: string) => `fuel.${by}.${tankId}`,
  oilLevel: "oil.level",
  magnetoBase: "magneto.base",
  magnetoRight: "magneto.right",
  magnetoLeft: "magneto.left",
  carburettorHot: "carburettor-heat.hot",
  carburettorColdAgain: "carburettor-heat.cold-again",
  densityAltitude: "air.density-altitude",
  altimeter: "altimeter",
  /** What the altimeter is set to: today's pressure for the field. */
  altimeterSetting: "altimeter.setting",
  heading: "instrument.heading",
  compass: "instrument.compass",
  climb: "instrument.climb",
  receiverOne: "receiver.one",
  receiverTwo: "receiver.two",
  windFrom: "wind.from",
  windSpeed: "wind.speed",
  windGust: "wind.gust",
} as const;

/** Which tank a reading is of, and how it was looked at; undefined for a reading of something else. */
export function tankOfKey(key: string): { by: string; tankId: string } | undefined {
  const [, by, tankId] = /^fuel\.([a-z]+)\.(.+)$/.exec(key) ?? [];
  return by && tankId ? { by, tankId } : undefined;
}

/** The reading of an engine by its name; the only engine's carries none. */
export function engineKey(key: string, engine: string | undefined): string {
  return engine ? `${key}.${engine}` : key;
}

/** The item whose answer is the runway in use. */
export const RUNWAY_ITEM = "runway-in-use";

/** What the engine of an aircraft with one is called where engines are kept by name. */
export const ONLY_ENGINE = "engine";
