import { isLocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import { DUE_KINDS, FLIGHT_KINDS, PURPOSES } from "@cravix/core/airworthiness/due/due-item";
import { METER_KINDS } from "@cravix/core/airworthiness/meters/meter";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, name, text, utcTime } from "../../bounds/fields";
import { isKey } from "../../bounds/plain-text";
import { id, optional, source, words } from "./parts";

/** A calendar day. */
export const day = () =>
  string().test(
    "day",
    ({ path }) => `${path} must be a valid date, such as 2026-03-31`,
    (value) => value === undefined || isLocalDate(value),
  );

/** Maximum reading or total that a person enters. */
export const MAX_TOTAL = 1_000_000;

const amount = () => anyNumber(0, MAX_TOTAL);
export const flightKinds = () => array().of(string().required().oneOf(FLIGHT_KINDS)).max(FLIGHT_KINDS.length);

const MAX_METERS = 40;

/** Totals by meter. Sums of entered totals may be larger. */
export const totalsSchema = (most = MAX_TOTAL) =>
  object()
    .test("totals", 'must map each meter to its total, such as "hours": 4211.3', (value) => {
      const rows = Object.entries(value ?? {});
      return (
        rows.length <= MAX_METERS &&
        rows.every(
          ([meter, total]) =>
            isKey(meter) && meter.length <= 120 && typeof total === "number" && total >= 0 && total <= most,
        )
      );
    })
    .meta({ jsonSchema: { additionalProperties: { type: "number", minimum: 0, maximum: most } } });

const tolerances = array()
  .of(
    object({
      most: bounded(0, 10_000),
      unit: string().oneOf(["months"]),
      for: string()
        .required()
        .oneOf([...PURPOSES, "any flight"]),
      takenOff: boolean().required(),
      source: source.required(),
    })
      .noUnknown()
      .required(),
  )
  .max(2 * PURPOSES.length);

/** Required and optional fields by kind of limit. */
export type FieldsByKind = Record<string, { must: string[]; may: string[] }>;

/** Checks that a limit has exactly the fields of its kind. */
export const fitsItsKind = (kinds: FieldsByKind) => ({
  name: "fits",
  message: "must have the fields of its kind of limit and no others",
  test: (value: { by?: string } | undefined) => {
    const fields = kinds[value?.by ?? ""];
    if (!fields || !value) return true;
    const has = Object.entries(value)
      .filter(([field, given]) => field !== "by" && given !== undefined)
      .map(([field]) => field);
    return (
      fields.must.every((field) => has.includes(field)) &&
      has.every((field) => fields.must.includes(field) || fields.may.includes(field))
    );
  },
});

export const DUE_LIMIT_FIELDS: FieldsByKind = {
  months: { must: ["months", "to"], may: ["tolerances", "rhythmWithin", "keepsRhythm", "first"] },
  days: { must: ["days"], may: ["tolerances", "rhythmWithin", "keepsRhythm", "first"] },
  meter: { must: ["meter", "every"], may: ["tolerances", "rhythmWithin", "keepsRhythm", "first"] },
  date: { must: ["date"], may: ["tolerances"] },
  reading: { must: ["meter", "at"], may: ["tolerances"] },
};

const dueLimitSchema = object({
  by: string().required().oneOf(Object.keys(DUE_LIMIT_FIELDS)),
  months: anyNumber(1, 600).integer(),
  to: string().oneOf(["month end", "same day"]),
  days: anyNumber(1, 20_000).integer(),
  meter: name(),
  every: anyNumber(0.1, 100_000),
  date: day(),
  at: amount(),
  tolerances,
  rhythmWithin: anyNumber(0, 10_000),
  keepsRhythm: boolean(),
  first: anyNumber(0, 100_000),
})
  .noUnknown()
  .test(fitsItsKind(DUE_LIMIT_FIELDS))
  .meta({
    jsonSchema: {
      oneOf: Object.entries(DUE_LIMIT_FIELDS).map(([by, { must }]) => ({
        properties: { by: { const: by } },
        required: ["by", ...must],
      })),
    },
  });

/** A due item; also an open condition left by a release. */
export const dueItemSchema = object({
  id: id(),
  name: words(120),
  kind: string().required().oneOf(DUE_KINDS),
  of: name(),
  limits: array().of(dueLimitSchema.required()).required().min(1).max(8),
  for: flightKinds(),
  once: boolean(),
  does: array().of(id()).max(60),
  endedBy: array().of(id()).max(60),
  notBeforeDays: anyNumber(0, 10_000).integer(),
  preventive: boolean(),
  doneBy: string().oneOf(["pilot"]),
  miss: string().required().oneOf(FINDING_GRADES),
  source: source.required(),
  workH: anyNumber(0, 1000),
}).noUnknown();

/** A completed item. */
export const workSchema = object({
  item: id(),
  date: day().required(),
  totals: totalsSchema().required(),
  under: string().oneOf(PURPOSES),
  sets: optional(object({ date: day(), readings: optional(totalsSchema()), source: text(200) }).noUnknown()),
  release: name(),
}).noUnknown();

const fitted = () => object({ at: utcTime().required(), totals: totalsSchema().required() }).noUnknown();

/** A meter, and the preflight reading that updates it. */
export const meterSchema = object({
  id: id(),
  name: words(60),
  kind: string().required().oneOf(METER_KINDS),
  decimals: bounded(0, 2).integer(),
  offset: anyNumber(-1_000_000, 1_000_000),
  runs: optional(object({ perHour: anyNumber(0, 10).required(), perFlight: anyNumber(0, 100) }).noUnknown()),
  sumOf: array().of(id()).max(10),
  reading: name(),
  changes: array()
    .of(
      object({
        at: utcTime().required(),
        oldReading: amount().required(),
        newReading: amount().required(),
      })
        .noUnknown()
        .required(),
    )
    .max(20),
}).noUnknown();

export const componentSchema = object({
  id: id(),
  name: words(80),
  kind: words(40),
  serial: text(60),
  sinceNew: totalsSchema().required(),
  sinceOverhaul: optional(totalsSchema()),
}).noUnknown();

/** Airworthiness record of one aircraft. */
export const airworthinessSchema = object({
  format: string().required().oneOf(["cravix.airworthiness/1"]),
  registration: string()
    .required()
    .matches(/^[A-Z0-9]{1,3}-[A-Z0-9]{2,5}$/, "must be a registration such as QX-TAR"),
  timeZone: name(60),
  meters: array().of(meterSchema.required()).required().min(1).max(MAX_METERS),
  start: object({ at: utcTime().required(), totals: totalsSchema().required() }).noUnknown().required(),
  components: array().of(componentSchema.required()).required().max(60),
  fittings: array()
    .of(
      object({
        component: id(),
        registration: id(),
        position: text(60),
        on: fitted().required(),
        off: optional(fitted()),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(300),
  items: array().of(dueItemSchema.required()).required().max(500),
  works: array().of(workSchema.required()).required().max(5000),
  source: optional(source),
}).noUnknown();
