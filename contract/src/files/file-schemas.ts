import {
  BRAKE_WAYS,
  CONDITIONS,
  DRILLS,
  FINDING_GRADES,
  FUEL_GRADES,
  ITEM_KINDS,
  LEDGER_WAYS,
  METHOD_TAGS,
  OIL_HEATS,
  PHASES,
  STATION_PHASES,
  STATION_ROLES,
  SURFACE_WAYS,
  TOPICS,
  TRACED_STEPS,
  UNITS,
} from "@cravix/core";
import { type AnyObjectSchema, array, boolean, object, string } from "yup";
import { anyNumber, bounded, words as fieldOfWords, key, name, text } from "../bounds/fields";
import { isName, isPlainText } from "../bounds/plain-text";

const id = () => key();
const words = (max = 400) => fieldOfWords(max);
/** An optional part: absent or whole. */
const optional = (schema: AnyObjectSchema) => schema.default(undefined).optional();

const source = object({
  kind: string().required().oneOf(["handbook", "rule", "common practice", "own limit"]),
  text: words(),
  example: boolean().required(),
}).noUnknown();

const limit = object({
  min: anyNumber(),
  max: anyNumber(),
  unit: string().required().oneOf(UNITS),
  source: source.required(),
})
  .noUnknown()
  .test("an-end", "needs a min or a max, and min below max", (value) => {
    if (!value) return true;
    const { min, max } = value;
    if (typeof min === "number" && typeof max === "number") return min <= max;
    return min !== undefined || max !== undefined;
  })
  .meta({ jsonSchema: { anyOf: [{ required: ["min"] }, { required: ["max"] }] } });

/** Either something goes out, with how, or something comes back. */
const ledger = optional(
  object({
    back: text(80),
    out: text(80),
    how: string().oneOf(LEDGER_WAYS),
    count: anyNumber(1, 20).integer(),
    stow: text(120),
    after: text(120),
  })
    .noUnknown()
    .test("out-or-back", "must say either what is out and how, or what is back", (value) => {
      if (!value) return true;
      const { back, out, how, count, stow, after } = value;
      const goes = out !== undefined && out !== "" && how !== undefined;
      const comes =
        back !== undefined && back !== "" && [how, count, stow, after].every((x) => x === undefined);
      return out === undefined ? comes : goes && back === undefined;
    })
    .meta({
      jsonSchema: {
        oneOf: [
          { required: ["out", "how"], not: { required: ["back"] } },
          {
            required: ["back"],
            not: { anyOf: ["out", "how", "count", "stow", "after"].map((name) => ({ required: [name] })) },
          },
        ],
      },
    }),
);

const year = () => anyNumber(1900, 2100).integer();
const years = object({ from: year(), to: year() }).noUnknown();
const asked = object({ ask: words(200), fact: id() }).noUnknown();
const method = () => string().oneOf(METHOD_TAGS);

/** What an item of a file says of itself. */
export const itemFields = {
  id: id(),
  station: id(),
  kind: string()
    .required()
    .oneOf(ITEM_KINDS.filter((kind) => kind !== "observe")),
  part: name(80),
  topic: string().oneOf(TOPICS),
  title: words(200),
  good: words(),
  bad: text(400),
  why: words(600),
  caution: text(400),
  miss: string().required().oneOf(FINDING_GRADES),
  done: text(40),
  when: array().of(string().required().oneOf(CONDITIONS)),
  years: optional(years),
  expected: anyNumber(1, 60).integer(),
  reading: optional(
    object({
      key: id(),
      unit: string().required().oneOf(UNITS),
      decimals: bounded(0, 3).integer(),
      plausible: optional(
        object({ min: anyNumber().required(), max: anyNumber().required(), why: words() }).noUnknown(),
      ),
      feel: boolean(),
    }).noUnknown(),
  ),
  limit: optional(limit),
  choices: array()
    .of(
      object({ value: id(), label: words(60) })
        .noUnknown()
        .required(),
    )
    .max(12),
  choicesFrom: string().oneOf(["runways"]),
  ledger,
  touches: array().of(words(40)).max(10),
  seconds: anyNumber(1, 600).integer(),
  confirm: optional(asked),
  proof: optional(asked),
  traced: string().oneOf(TRACED_STEPS),
  drill: string().oneOf(DRILLS),
  method: method(),
  second: boolean(),
  loads: optional(object({ on: array().of(id()).max(30), off: array().of(id()).max(30) }).noUnknown()),
  spot: name(),
};

export const itemSchema = object(itemFields).noUnknown();
const DAY = /^\d{4}-\d{2}-\d{2}$/;
const ownItemSchema = object({
  ...itemFields,
  retired: string().matches(DAY, "must be a day, like 2026-05-01"),
}).noUnknown();

/** A scale: what its readings mean in litres. */
const scale = optional(
  object({
    unit: string().required().oneOf(UNITS),
    points: array()
      .of(
        object({ at: bounded(0, 5000), litres: bounded(0, 5000) })
          .noUnknown()
          .required(),
      )
      .required()
      .min(2)
      .max(60),
    source: source.required(),
  }).noUnknown(),
);

const tank = object({
  id: id(),
  name: words(60),
  side: string().oneOf(["left", "right"]),
  fillOrder: anyNumber(0, 10).integer(),
  marks: array()
    .of(
      object({ name: words(60), litres: bounded(0, 5000) })
        .noUnknown()
        .required(),
    )
    .max(12),
  sight: scale,
  gauge: scale,
  geometry: optional(
    object({
      spanCm: bounded(1, 1000),
      chordCm: bounded(1, 1000),
      depthCm: bounded(1, 300),
      holeRightCm: bounded(-500, 500),
      holeForwardCm: bounded(-500, 500),
    }).noUnknown(),
  ),
  unusableL: bounded(0, 1000),
  capacityL: bounded(0.1, 5000),
  calibration: optional(
    object({
      points: array()
        .of(
          object({ dipCm: bounded(0, 300), litres: bounded(0, 5000) })
            .noUnknown()
            .required(),
        )
        .required()
        .max(200),
      source: source.required(),
    }).noUnknown(),
  ),
}).noUnknown();

const sourced = (key: string) =>
  optional(object({ [key]: bounded(0, 10_000), source: source.required() }).noUnknown());

export const stationSchema = object({
  id: id(),
  name: words(80),
  phase: string().required().oneOf(STATION_PHASES),
  role: string().oneOf(STATION_ROLES),
  x: anyNumber(),
  y: anyNumber(),
}).noUnknown();

/** What a model year can have otherwise than the type. */
export const limits = {
  fuel: optional(
    object({
      tanks: array().of(tank.required()).required().min(1).max(12),
      taxiL: bounded(0, 200),
      climbL: anyNumber(0, 200),
      settings: array()
        .of(
          object({ name: words(40), lPerH: bounded(0.1, 1000), source: source.required() })
            .noUnknown()
            .required(),
        )
        .max(12),
      grades: array()
        .of(
          string()
            .required()
            .oneOf(FUEL_GRADES.map((grade) => grade.id)),
        )
        .min(1)
        .max(8),
      maxTakeoffKg: sourced("value"),
      burnLPerH: sourced("value"),
      imbalanceL: sourced("value"),
    }).noUnknown(),
  ),
  oil: optional(
    object({
      minimumQt: anyNumber(0, 30),
      longFlightMinimumQt: anyNumber(0, 30),
      maximumQt: anyNumber(0, 30),
      containerQt: bounded(0.05, 10),
      throwsOffQt: anyNumber(0, 30),
      markedFor: string().oneOf(OIL_HEATS),
      hotReadsLowerQt: anyNumber(0, 5),
      grades: array().of(words(40)).min(1).max(8),
      drySump: boolean(),
      source: source.required(),
    }).noUnknown(),
  ),
  magnetos: optional(
    object({
      maxDropRpm: anyNumber(1, 2000),
      maxDifferenceRpm: anyNumber(1, 2000),
      resolutionRpm: bounded(1, 200),
      tachometerMaxRpm: bounded(100, 8000),
      source: source.required(),
    }).noUnknown(),
  ),
  runUp: optional(
    object({
      rpm: bounded(500, 7000),
      within: bounded(5, 500),
      firstSide: string().required().oneOf(["right", "left"]),
      sideWords: optional(object({ right: words(30), left: words(30) }).noUnknown()),
      cylinders: bounded(1, 18).integer(),
      fuelSystem: string().required().oneOf(["carburettor", "injected"]),
      propeller: string().required().oneOf(["fixed", "constant speed"]),
      propellerCheck: optional(object({ dropRpm: bounded(50, 2000), withinS: bounded(0.2, 20) }).noUnknown()),
      ratedRpm: bounded(1000, 7000),
      volts: anyNumber().required().oneOf([14, 28]),
      suction: boolean().required(),
      heat: string().required().oneOf(["carburettor heat", "alternate air", "none"]),
      leanAboveFt: bounded(0, 20_000),
      charging: limit.required(),
      suctionGreen: optional(limit),
      oilPressure: limit.required(),
      oilTemperature: limit.required(),
      head: limit.required(),
      idle: limit.shape({ seconds: bounded(1, 30) }).required(),
      clear: object({
        rpm: bounded(500, 7000),
        seconds: bounded(10, 300),
        tries: bounded(1, 5).integer(),
        headMax: limit.required(),
      })
        .noUnknown()
        .required(),
      groundLean: object({ rpm: bounded(500, 7000), turnsIn: bounded(0, 20) })
        .noUnknown()
        .required(),
      source: source.required(),
    }).noUnknown(),
  ),
  crosswind: sourced("kt"),
  electrical: optional(
    object({
      volts: bounded(6, 48),
      batteryAh: bounded(1, 200),
      loads: array()
        .of(
          object({ id: id(), name: words(60), amps: bounded(0.05, 200) })
            .noUnknown()
            .required(),
        )
        .required()
        .max(40),
      usable: array()
        .of(
          object({ celsius: bounded(-60, 60), part: bounded(0, 1) })
            .noUnknown()
            .required(),
        )
        .required()
        .min(1)
        .max(60),
      start: array()
        .of(
          object({ celsius: bounded(-60, 60), ah: bounded(0, 100) })
            .noUnknown()
            .required(),
        )
        .required()
        .min(1)
        .max(60),
      lapMin: bounded(0.5, 60),
      source: source.required(),
    }).noUnknown(),
  ),
};

/** A corner of a wall: x and y. */
const corner = array().of(anyNumber().required()).length(2);

const recommendedWay = (ways: readonly string[]) =>
  optional(object({ way: string().required().oneOf(ways), why: words() }).noUnknown());

/** What a type says besides its stations and items; a composed list carries it along. */
export const profileFields = {
  id: id(),
  name: words(80),
  what: words(),
  stub: text(400),
  plan: optional(
    object({
      width: bounded(10, 5000),
      height: bounded(10, 5000),
      bodies: array()
        .of(
          object({
            d: words(4000).matches(
              /^[MLHVCSQTAZmlhvcsqtaz0-9 ,.\-e]+$/,
              "must be an outline (SVG path data)",
            ),
            tone: string().required().oneOf(["body", "line"]),
          })
            .noUnknown()
            .required(),
        )
        .required()
        .max(100),
      metresPerUnit: anyNumber(0.0001, 10),
      door: optional(object({ x: anyNumber().required(), y: anyNumber().required() }).noUnknown()),
      walls: array().of(array().of(corner.required()).min(3).max(60).required()).max(20),
    }).noUnknown(),
  ),
  rules: array()
    .of(
      object({
        id: id(),
        first: id(),
        waits: object({ items: array().of(id()).max(50), touches: text(40) })
          .noUnknown()
          .required(),
        why: words(),
        method: method(),
      })
        .noUnknown()
        .required(),
    )
    .max(100),
  gates: array()
    .of(
      object({ id: id(), before: string().required().oneOf(PHASES), why: words() })
        .noUnknown()
        .required(),
    )
    .max(20),
  recommended: optional(
    object({
      surfaces: recommendedWay(SURFACE_WAYS),
      brake: recommendedWay(BRAKE_WAYS),
    }).noUnknown(),
  ),
  engines: array().of(words(20)).min(2).max(4),
  ...limits,
};

export const aircraftTypeSchema = object({
  format: string().required().oneOf(["cravix.aircraft-type/2"]),
  ...profileFields,
  stations: array().of(stationSchema.required()).required().max(300),
  items: array().of(itemSchema.required()).required().max(5000),
  variants: array()
    .of(
      object({ id: id(), name: words(80), what: words(), years: years.required(), ...limits })
        .noUnknown()
        .required(),
    )
    .max(20),
}).noUnknown();

/** A small dictionary of words: nothing in it may be anything but text. */
function areWords(value: object | undefined): boolean {
  const facts = Object.entries(value ?? {});
  return (
    facts.length <= 200 &&
    facts.every(
      ([fact, words]) =>
        isName(fact) &&
        fact.length <= 120 &&
        typeof words === "string" &&
        words.length <= 200 &&
        isPlainText(words),
    )
  );
}

/** What can be read on an aircraft: a name and its words. */
export const factsSchema = object()
  .test("words", "must be a name and its words, like 06/2028", areWords)
  .meta({ jsonSchema: { additionalProperties: { type: "string", maxLength: 200 } } });

export const aircraftSchema = object({
  format: string().required().oneOf(["cravix.aircraft/2"]),
  registration: string()
    .required()
    .matches(/^[A-Z0-9]{1,3}-[A-Z0-9]{2,5}$/, "must look like QX-TAR"),
  typeId: id(),
  year: bounded(1900, 2100).integer(),
  base: words(80),
  story: text(400),
  ownItems: array().of(ownItemSchema.required()).required().max(200),
  facts: optional(factsSchema),
  /** The rule set that this one is flown by, where it is not the airfield's. */
  rules: name(),
}).noUnknown();

export const airfieldSchema = object({
  format: string().required().oneOf(["cravix.airfield/1"]),
  id: id(),
  name: words(80),
  elevationFt: bounded(-1500, 20_000),
  /** The rule set of this place. */
  rules: name(),
  runways: array()
    .of(
      object({ id: id(), headingDeg: bounded(0, 360), lengthM: bounded(1, 10_000), surface: words(40) })
        .noUnknown()
        .required(),
    )
    .required()
    .max(20),
}).noUnknown();

export const ruleSetSchema = object({
  format: string().required().oneOf(["cravix.rule-set/1"]),
  id: id(),
  name: words(),
  reserves: array()
    .of(
      object({
        when: string().required().oneOf(["day", "night", "instrument"]),
        minutes: bounded(0, 600),
        source: source.required(),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(20),
  altimeter: optional(object({ feet: bounded(1, 1000), source: source.required() }).noUnknown()),
}).noUnknown();

export const crewSchema = object({
  format: string().required().oneOf(["cravix.crew/1"]),
  members: array()
    .of(
      object({
        id: id(),
        name: words(80),
        role: string().required().oneOf(["pilot", "student", "instructor", "mechanic", "owner"]),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(1000),
}).noUnknown();
