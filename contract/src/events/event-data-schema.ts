import { CONDITIONS } from "@cravix/core/aircraft/aircraft-type";
import { RETURN_RULES } from "@cravix/core/aircraft/preferences";
import { LAUNCH_WAYS } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { AIRSPACE_KINDS, FLIGHT_USES, PURPOSES } from "@cravix/core/airworthiness/due/due-item";
import { ASKED_BY } from "@cravix/core/airworthiness/life/deferral";
import { EVENT_TYPES, type EventType, INTERRUPTION_CAUSES } from "@cravix/core/checklist/stream/events";
import { BRIEFING_KINDS } from "@cravix/core/departure/briefing-kinds";
import { PAPER_TESTS, SAMPLE_LOOKS } from "@cravix/core/fuel/drain/fuel-sample";
import { SAMPLE_FATES } from "@cravix/core/fuel/fuel-inputs";
import { FUEL_UNITS } from "@cravix/core/fuel/grade/fuel-amount";
import { FUEL_COLOURS, FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import { FLIGHT_SUBJECTS } from "@cravix/core/judgement/flight-subjects";
import { FINDING_GRADES, SIGNED_VERDICTS } from "@cravix/core/judgement/judgement";
import { OIL_HEATS } from "@cravix/core/oil/judge-oil";
import { MAX_TRACE_POINTS, RUN_UP_SOURCES, TRACE_SOURCES } from "@cravix/core/run-up/record/run-up-read";
import { UNITS } from "@cravix/core/units/convert";
import { array, boolean, type ObjectSchema, type ObjectShape, object, string } from "yup";
import { anyNumber, bounded, key, name, requiredText, text, utcTime } from "../bounds/fields";
import {
  componentSchema,
  day,
  dueItemSchema,
  flightKinds,
  totalsSchema,
  workSchema,
} from "../files/schemas/airworthiness-schema";
import { personDueSchema, personWorkSchema } from "../files/schemas/person-schema";
import { preferencesSchema } from "../files/schemas/preferences-schema";
import { weatherToldFields } from "../files/schemas/weather-schema";
import { eventId, flightLine, loadFields, MAX_PX, optional, photographHash } from "./event-fields";

/** Fields of the data of each kind of event. */
export const EVENT_DATA: { [T in EventType]: ObjectShape } = {
  "preflight.started": {
    registration: key(),
    listHash: string()
      .required()
      .matches(/^sha256:[0-9a-f]{64}$/, "must be the content hash of the checklist"),
    conditions: array().of(string().required().oneOf(CONDITIONS)).required().max(CONDITIONS.length),
    plannedFlightMin: anyNumber(1, 6000),
    plannedLandings: anyNumber(0, 200).integer(),
    plannedLaunch: string().oneOf(LAUNCH_WAYS),
    plannedLoad: optional(object(loadFields())),
    purpose: string().oneOf(PURPOSES),
    use: string().oneOf(FLIGHT_USES),
    airspace: optional(
      object(Object.fromEntries(AIRSPACE_KINDS.map((kind) => [kind, boolean()]))).noUnknown(),
    ),
    fullSeats: boolean(),
    dayAndNight: boolean(),
    preferences: optional(preferencesSchema),
    celsius: anyNumber(-60, 60),
    weather: optional(object(weatherToldFields)),
    turnBackFt: anyNumber(1, 5000),
  },
  "item.answered": {
    itemId: key(),
    outcome: string().required().oneOf(["checked", "found"]),
    value: text(200),
    caught: boolean(),
    byCrewId: name(),
    card: name(),
  },
  "station.flowed": { stationId: key() },
  "crew.joined": { crewId: key() },
  "crew.left": { crewId: key() },
  "item.postponed": { itemId: key() },
  "item.visited": { itemId: key() },
  "item.undone": { eventId: eventId() },
  "reading.taken": {
    itemId: key(),
    key: key(),
    value: anyNumber().required(),
    unit: string().required().oneOf(UNITS),
    feel: string().oneOf(["smooth", "rough", "quit"]),
    heat: string().oneOf(OIL_HEATS),
    from: string().oneOf(TRACE_SOURCES),
    card: name(),
  },
  "sample.taken": {
    itemId: key(),
    look: string().required().oneOf(SAMPLE_LOOKS),
    colour: string().oneOf(FUEL_COLOURS),
    paper: string().oneOf(PAPER_TESTS),
    seconds: anyNumber(0, 3600),
    fate: string().oneOf(SAMPLE_FATES),
    card: name(),
  },
  "load.told": loadFields(),
  "weather.told": weatherToldFields,
  "briefing.given": {
    to: string().required().oneOf(BRIEFING_KINDS),
    steps: array()
      .of(
        object({ title: requiredText(120), words: requiredText(1000) })
          .noUnknown()
          .required(),
      )
      .required()
      .min(1)
      .max(30),
  },
  "wings.rocked": {},
  "fuel.uplifted": {
    registration: key(),
    tankId: name(),
    amount: bounded(0.01, 5000),
    unit: string().required().oneOf(FUEL_UNITS),
    grade: string().oneOf(FUEL_GRADES.map((grade) => grade.id)),
    receipt: text(40),
    from: string().required().oneOf(["pump", "typed", "file"]),
  },
  "fuel.told": {
    unit: string().oneOf(FUEL_UNITS),
    setting: text(60),
    payloadKg: anyNumber(0, 3000),
    tilt: optional(
      object({
        rightDownDeg: bounded(-15, 15),
        noseUpDeg: bounded(-20, 20),
      }),
    ),
    night: optional(
      object({
        lowC: bounded(-60, 50),
        dewPointC: bounded(-60, 50),
        nights: bounded(0, 60).integer(),
      }),
    ),
  },
  "oil.added": {
    registration: key(),
    engine: name(20),
    qt: bounded(0.01, 30),
    grade: text(40),
    sealed: boolean().required(),
  },
  "run-up.read": {
    itemId: key(),
    engine: name(20),
    from: string().required().oneOf(RUN_UP_SOURCES),
    densityAltitudeFt: anyNumber(-5000, 25_000),
    found: optional(
      object({
        fault: key(),
        name: requiredText(200),
        grade: string().required().oneOf(FINDING_GRADES),
        probability: bounded(0, 1),
        sentence: requiredText(600),
        action: text(400),
        caution: text(400),
        side: string().oneOf(["right", "left"]),
        cylinder: anyNumber(1, 40).integer(),
      }),
    ),
    notes: array().of(requiredText(400)).required().max(60),
    rpm: array()
      .of(array().of(bounded(-1, 100_000)).length(2).required())
      .required()
      .max(MAX_TRACE_POINTS),
    steps: array()
      .of(
        object({
          step: requiredText(20),
          from: bounded(-1, 100_000),
          to: bounded(-1, 100_000),
        }).required(),
      )
      .required()
      .max(200),
  },
  "blade.pulled": { itemId: key(), blade: bounded(1, 100).integer() },
  "discrepancy.opened": {
    discrepancyId: eventId(),
    registration: key(),
    stationId: key(),
    itemId: name(),
    text: requiredText(2000),
    grade: string().required().oneOf(FINDING_GRADES),
    measure: text(200),
    cause: name(),
  },
  "discrepancy.observed": {
    discrepancyId: eventId(),
    itemId: key(),
    state: string().required().oneOf(["same", "grown", "gone"]),
    measure: text(200),
  },
  "discrepancy.withdrawn": { discrepancyId: eventId() },
  "discrepancy.closed": {
    discrepancyId: eventId(),
    how: requiredText(2000),
    noFault: boolean().oneOf([true]),
    release: name(),
  },
  "discrepancy.deferred": {
    discrepancyId: eventId(),
    basis: requiredText(2000),
    rules: key(),
    broken: anyNumber(1, 40).integer(),
    equipment: name(),
    for: flightKinds().required(),
    until: day(),
    reading: optional(object({ meter: key(), at: bounded(0, 1_000_000) })),
    placard: text(120),
    deactivated: text(300),
    operations: text(400),
    certificate: text(120),
  },
  "discrepancy.regraded": {
    discrepancyId: eventId(),
    grade: string().required().oneOf(FINDING_GRADES),
    why: requiredText(2000),
  },
  "discrepancy.asked": {
    discrepancyId: eventId(),
    whom: requiredText(120),
    by: string().required().oneOf(ASKED_BY),
    said: requiredText(2000),
  },
  "discrepancy.merged": { discrepancyId: eventId(), into: eventId() },
  "discrepancy.limited": {
    discrepancyId: eventId(),
    most: bounded(0, 1_000_000),
    unit: text(40).defined(),
    source: requiredText(200),
  },
  "discrepancy.photographed": {
    discrepancyId: eventId(),
    photograph: photographHash(),
    width: bounded(1, MAX_PX).integer(),
    height: bounded(1, MAX_PX).integer(),
  },
  "flight.logged": flightLine,
  "flight.corrected": {
    registration: key(),
    of: eventId(),
    line: optional(object(flightLine)),
    why: requiredText(400),
  },
  "work.released": {
    registration: key(),
    date: day().required(),
    done: requiredText(4000),
    reference: text(400),
    readings: totalsSchema().required(),
    works: array().of(workSchema.required()).required().max(200),
    closes: array().of(eventId()).required().max(200),
    leaves: array().of(dueItemSchema.required()).required().max(40),
    certificate: object({ kind: requiredText(80), number: requiredText(80) })
      .noUnknown()
      .required(),
    preventive: boolean(),
  },
  "release.withdrawn": { registration: key(), of: eventId(), why: requiredText(400) },
  "meter.replaced": {
    registration: key(),
    meter: key(),
    oldReading: bounded(0, 1_000_000),
    newReading: bounded(0, 1_000_000),
  },
  "component.removed": { registration: key(), component: key(), totals: totalsSchema().required() },
  "component.fitted": {
    registration: key(),
    component: componentSchema.required(),
    position: text(60),
    totals: totalsSchema().required(),
    items: array().of(dueItemSchema.required()).required().max(60),
    works: array().of(workSchema.required()).required().max(600),
  },
  "workshop.planned": {
    closed: array()
      .of(
        object({ from: day().required(), to: day().required(), why: text(80) })
          .noUnknown()
          .required(),
      )
      .required()
      .max(60),
    visits: array()
      .of(
        object({
          registration: key(),
          date: day().required(),
          items: array().of(requiredText(120)).required().max(60),
          byHand: boolean().oneOf([true]),
        })
          .noUnknown()
          .required(),
      )
      .required()
      .max(400),
  },
  "person.due-set": { personId: key(), item: personDueSchema.required() },
  "person.due-dropped": { personId: key(), item: key() },
  "person.done": { personId: key(), work: personWorkSchema.required() },
  "daily.signed": { registration: key(), date: day().required() },
  "document.renewed": {
    registration: key(),
    item: key(),
    date: day().required(),
    until: day().required(),
    source: text(200),
  },
  "assessment.waived": {
    subjects: array()
      .of(string().required().oneOf(FLIGHT_SUBJECTS))
      .required()
      .min(1)
      .max(FLIGHT_SUBJECTS.length),
    why: requiredText(400),
  },
  interrupted: {
    itemId: name(),
    cause: string().oneOf(INTERRUPTION_CAUSES),
    since: utcTime(),
  },
  resumed: { itemId: name(), way: string().oneOf([...RETURN_RULES, "where I was"]) },
  "verdict.signed": {
    verdict: string().required().oneOf(SIGNED_VERDICTS),
    decision: string().required().oneOf(["fly", "not flying"]),
    reasons: array().of(requiredText(500)).required().max(500),
    askedCrewId: name(),
  },
};

const DATA_SCHEMAS = new Map<EventType, ObjectSchema<object>>(
  EVENT_TYPES.map((type) => [type, object(EVENT_DATA[type]).noUnknown().required().strict()]),
);

/** Schema of the data of one kind of event; also the schema of the form in which it is entered. */
export const eventDataSchema = (type: EventType): ObjectSchema<object> =>
  DATA_SCHEMAS.get(type) as ObjectSchema<object>;
