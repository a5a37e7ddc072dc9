import { isConvertible, UNITS } from "../units/convert";
import {
  isReadingOf,
  READING_KINDS,
  readingDefinition,
  readingKey,
  readingName,
  scopeOf,
  tankOfKey,
  topicOf,
} from "./reading-keys";

test("every generated id is parsed back, for every kind, engine and tank", () => {
  for (const kind of READING_KINDS) {
    const { of } = readingDefinition(kind);
    if (of !== "tank") expect(readingName(readingKey(kind))).toEqual({ kind });
    for (const subject of of === "aircraft" ? [] : ["left", "right", "main", "right-tip", "aux.2"])
      expect(readingName(readingKey(kind, subject))).toEqual({ kind, subject });
  }
});

test.each([
  ["fuel.dip.", undefined],
  ["fuel.dip", undefined],
  ["fuel.smell.left", undefined],
  ["nose-oleo", undefined],
  ["oil", undefined],
  ["oil.levels", undefined],
  ["__proto__", undefined],
  ["constructor", undefined],
  ["magneto.left.right", { kind: "magneto.left", subject: "right" }],
  ["volts.charging.left", { kind: "volts.charging", subject: "left" }],
  // As in older checklists.
  ["after.hours", { kind: "hours.after" }],
])("%s", (key, expected) => {
  expect(readingName(key)).toEqual(expected);
});

test("readings of the day and of the aircraft; the aircraft's own readings belong to it", () => {
  expect(["fuel.dip.left", "wind.gust", "hours", "oil.level.right", "mass.rear"].map(scopeOf)).toEqual(
    Array(5).fill("day"),
  );
  expect(["volts.charging", "nose-oleo", "magneto.base", "altimeter"].map(scopeOf)).toEqual(
    Array(4).fill("aircraft"),
  );
});

test("topics, tanks and kinds are known without parsing the id", () => {
  expect(topicOf("fuel.gauge.left")).toBe("fuel");
  expect(topicOf("nose-oleo")).toBeUndefined();
  expect(topicOf(undefined)).toBeUndefined();
  expect(tankOfKey("fuel.sight.right-tip")).toEqual({ by: "sight", tankId: "right-tip" });
  expect(tankOfKey("oil.level")).toBeUndefined();
  expect(isReadingOf("oil.level.left", "oil.level")).toBe(true);
  expect(isReadingOf("oil.temperature", "oil.level")).toBe(false);
});

test("the unit of every kind can be read", () => {
  for (const kind of READING_KINDS) {
    const { unit } = readingDefinition(kind);
    if (unit) expect(UNITS.some((one) => isConvertible(one, unit))).toBe(true);
  }
});
