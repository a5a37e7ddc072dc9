import {
  assertPlausible,
  BRAKE_WAYS,
  CONDITIONS,
  EVENT_TYPES,
  type EventData,
  type EventType,
  FINDING_GRADES,
  FUEL_COLOURS,
  FUEL_GRADES,
  FUEL_UNITS,
  HANDS,
  INTERRUPTION_CAUSES,
  METHODS,
  MOST_DRAWN,
  OIL_HEATS,
  PAPER_TESTS,
  type PreflightEvent,
  QuantityError,
  RETURN_RULES,
  RUN_UP_SOURCES,
  SAMPLE_FATES,
  SAMPLE_LOOKS,
  SIGNED_VERDICTS,
  SURFACE_WAYS,
  UNITS,
} from "@cravix/core";
import {
  array,
  boolean,
  number,
  type ObjectSchema,
  type ObjectShape,
  object,
  string,
  ValidationError,
} from "yup";
import { quickCheck } from "./quick-check";

const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;
const ISO_UTC = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\.\d{3}Z$/;

const eventId = () =>
  string().required().matches(UUID_V7, "must be a time-ordered id (UUID version 7, lower case)");
const key = () => string().required().min(1).max(120);
const words = (max: number) => string().required().min(1).max(max);

const school = object({
  method: string().required().oneOf(METHODS),
  start: string().max(120),
  hand: string().required().oneOf(HANDS),
  order: array().of(key()).max(300),
  surfaces: string().required().oneOf(SURFACE_WAYS),
  brake: string().required().oneOf(BRAKE_WAYS),
  afterInterruption: string().required().oneOf(RETURN_RULES),
  sample: string().oneOf(SAMPLE_FATES),
});

/** A part that is absent or whole, with nothing else in it. */
const optional = (schema: ObjectSchema<object>) => schema.noUnknown().default(undefined).optional();

const DATA: { [T in EventType]: ObjectShape } = {
  "preflight.started": {
    registration: key(),
    listHash: string()
      .required()
      .matches(/^sha256:[0-9a-f]{64}$/, "must be the content hash of the list"),
    conditions: array().of(string().required().oneOf(CONDITIONS)).required().max(CONDITIONS.length),
    plannedFlightMin: number().min(1).max(6000),
    school: optional(school),
    celsius: number().min(-60).max(60),
  },
  "item.answered": {
    itemId: key(),
    outcome: string().required().oneOf(["sound", "found"]),
    value: string().max(200),
    caught: boolean(),
    byCrewId: string().max(120),
  },
  "station.flowed": { stationId: key() },
  "crew.joined": { crewId: key() },
  "crew.left": { crewId: key() },
  "item.deferred": { itemId: key() },
  "item.visited": { itemId: key() },
  "item.undone": { eventId: eventId() },
  "reading.taken": {
    itemId: key(),
    key: key(),
    value: number().required(),
    unit: string().required().oneOf(UNITS),
    feel: string().oneOf(["smooth", "rough", "quit"]),
    heat: string().oneOf(OIL_HEATS),
  },
  "sample.taken": {
    itemId: key(),
    look: string().required().oneOf(SAMPLE_LOOKS),
    colour: string().oneOf(FUEL_COLOURS),
    paper: string().oneOf(PAPER_TESTS),
    seconds: number().min(0).max(3600),
    fate: string().oneOf(SAMPLE_FATES),
  },
  "wings.rocked": {},
  "fuel.uplifted": {
    registration: key(),
    tankId: string().max(120),
    amount: number().required().min(0.01).max(5000),
    unit: string().required().oneOf(FUEL_UNITS),
    grade: string().oneOf(FUEL_GRADES.map((grade) => grade.id)),
    receipt: string().max(40),
    from: string().required().oneOf(["pump", "typed", "file"]),
  },
  "fuel.told": {
    unit: string().oneOf(FUEL_UNITS),
    setting: string().max(60),
    payloadKg: number().min(0).max(3000),
    tilt: optional(
      object({
        rightDownDeg: number().required().min(-15).max(15),
        noseUpDeg: number().required().min(-20).max(20),
      }),
    ),
    night: optional(
      object({
        lowC: number().required().min(-60).max(50),
        dewPointC: number().required().min(-60).max(50),
        nights: number().required().integer().min(0).max(60),
      }),
    ),
  },
  "oil.added": {
    registration: key(),
    engine: string().max(20),
    qt: number().required().min(0.01).max(30),
    grade: string().max(40),
    sealed: boolean().required(),
  },
  "run-up.read": {
    itemId: key(),
    engine: string().max(20),
    from: string().required().oneOf(RUN_UP_SOURCES),
    densityAltitudeFt: number().min(-5000).max(25_000),
    found: optional(
      object({
        fault: key(),
        name: words(200),
        grade: string().required().oneOf(FINDING_GRADES),
        probability: number().required().min(0).max(1),
        sentence: words(600),
        action: string().max(400),
        caution: string().max(400),
      }),
    ),
    notes: array().of(words(400)).required().max(60),
    rpm: array()
      .of(array().of(number().required().min(-1).max(100_000)).length(2).required())
      .required()
      .max(MOST_DRAWN),
    steps: array()
      .of(
        object({
          step: words(20),
          from: number().required().min(-1).max(100_000),
          to: number().required().min(-1).max(100_000),
        }).required(),
      )
      .required()
      .max(200),
  },
  "blade.pulled": { itemId: key(), blade: number().required().integer().min(1).max(100) },
  "discrepancy.opened": {
    discrepancyId: eventId(),
    registration: key(),
    stationId: key(),
    itemId: string().max(120),
    text: words(2000),
    grade: string().required().oneOf(FINDING_GRADES),
    measure: string().max(200),
  },
  "discrepancy.observed": {
    discrepancyId: eventId(),
    itemId: key(),
    state: string().required().oneOf(["same", "grown", "gone"]),
    measure: string().max(200),
  },
  "discrepancy.closed": { discrepancyId: eventId(), how: words(2000) },
  interrupted: {
    itemId: string().max(120),
    cause: string().oneOf(INTERRUPTION_CAUSES),
    since: string().matches(ISO_UTC, "must be UTC with milliseconds, like 2026-05-01T09:30:00.000Z"),
  },
  resumed: { itemId: string().max(120), way: string().oneOf([...RETURN_RULES, "where I was"]) },
  "verdict.signed": {
    verdict: string().required().oneOf(SIGNED_VERDICTS),
    decision: string().required().oneOf(["fly", "not flying"]),
    reasons: array().of(words(500)).required().max(500),
    askedCrewId: string().max(120),
  },
};

const envelope = {
  id: eventId(),
  preflightId: eventId(),
  deviceId: eventId(),
  crewId: key(),
  at: string().required().matches(ISO_UTC, "must be UTC with milliseconds, like 2026-05-01T09:30:00.000Z"),
  type: string().required(),
};

const SCHEMAS = new Map<string, ObjectSchema<object>>(
  EVENT_TYPES.map((type) => [
    type,
    object({ ...envelope, data: object(DATA[type]).noUnknown().required() })
      .noUnknown()
      .strict(),
  ]),
);

/** Yup says what is wrong, but slowly; what is right is seen by a check made from its description. */
const QUICK = new Map([...SCHEMAS].map(([type, schema]) => [type, quickCheck(schema.describe())]));

/** How far ahead of the server a device's clock may be. Beyond it the event waits on the device until the clock is right. */
export const CLOCK_TOLERANCE_MIN = 10;

/** An event that was not taken: which, where in it, why, in words for the person who gave the answer. */
export interface Refusal {
  id: string | null;
  index: number;
  field?: string;
  reason: string;
}

export type EventCheck = { event: PreflightEvent } | { refusal: Omit<Refusal, "index"> };

/**
 * Checks one event that crosses the boundary. Never throws: what is not valid comes back with its id, the field and the reason.
 * `now` is the checking side's clock; an event more than ten minutes ahead of it is refused.
 */
export function checkEvent(input: unknown, now: Date): EventCheck {
  const id = idOf(input);
  const refuse = (reason: string, field?: string): EventCheck => ({
    refusal: { id, reason, ...(field && { field }) },
  });
  if (typeof input !== "object" || input === null || Array.isArray(input))
    return refuse("An event is a JSON object.");
  const { type } = input as { type?: unknown };
  const schema = typeof type === "string" ? SCHEMAS.get(type) : undefined;
  if (!schema) return refuse(`No such kind of event: ${JSON.stringify(type) ?? "none"}.`, "type");
  try {
    if (!QUICK.get(type as string)?.(input)) schema.validateSync(input);
  } catch (error) {
    if (error instanceof ValidationError)
      return refuse(error.errors[0] ?? error.message, error.path ?? undefined);
    throw error;
  }
  const event = input as PreflightEvent;
  const at = Date.parse(event.at);
  if (Number.isNaN(at)) return refuse("There is no such date.", "at");
  if (at > now.getTime() + CLOCK_TOLERANCE_MIN * 60_000)
    return refuse(
      `This answer is dated ${event.at}, in the future. Set the device's clock, then send it again.`,
      "at",
    );
  if (event.type === "reading.taken") {
    const { value, unit, key: name } = event.data satisfies EventData["reading.taken"];
    try {
      assertPlausible(name, value, unit);
    } catch (error) {
      if (error instanceof QuantityError) return refuse(error.message, "data.value");
      throw error;
    }
  }
  return { event };
}

function idOf(input: unknown): string | null {
  const id = (input as { id?: unknown } | null)?.id;
  return typeof id === "string" && id.length <= 100 ? id : null;
}
