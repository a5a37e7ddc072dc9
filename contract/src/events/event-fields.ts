import { array, boolean, type ObjectSchema, type ObjectShape, object, string } from "yup";
import { anyNumber, bounded, key, requiredText, text, utcTime } from "../bounds/fields";
import { isKey } from "../bounds/plain-text";
import { totalsSchema } from "../files/schemas/airworthiness-schema";

// Fields that several kinds of events share.

export const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;

/** True for an event id: UUID version 7, lower case. */
export const isEventId = (id: string): boolean => UUID_V7.test(id);

export const eventId = () =>
  string().required().matches(UUID_V7, "must be a time-ordered id (UUID version 7, lower case)");

/** Content hash of a photo. */
export const PHOTOGRAPH_HASH = /^sha256:[0-9a-f]{64}$/;
export const photographHash = () =>
  string().required().matches(PHOTOGRAPH_HASH, "must be the content hash of a photo");
/** Devices reduce photos below this size. */
export const MAX_PX = 4096;

/** An optional object, complete if present, without unknown fields. */
export const optional = (schema: ObjectSchema<object>) => schema.noUnknown().default(undefined).optional();

export const MAX_CREW = 12;

/** A technical log entry. */
export const flightLine: ObjectShape = {
  registration: key(),
  from: requiredText(80),
  to: requiredText(80),
  off: utcTime().required(),
  on: utcTime().required(),
  pilot: requiredText(120),
  crew: array().of(requiredText(120)).max(MAX_CREW),
  meters: object()
    .test("meters", "must give the start and end reading of each meter", areOutAndIn)
    .required(),
  counts: totalsSchema().required(),
  night: optional(
    object({
      takeOffs: bounded(0, 200).integer(),
      landings: bounded(0, 200).integer(),
      fullStops: anyNumber(0, 200).integer(),
    }),
  ),
  fullStops: anyNumber(0, 200).integer(),
  ground: boolean().oneOf([true]),
  takeOffs: anyNumber(0, 200).integer(),
  fuel: optional(object({ addedL: anyNumber(0, 5000), leftL: anyNumber(0, 5000) })),
  oilAddedQt: anyNumber(0, 60),
  discrepancies: array().of(eventId()).max(100),
  remarks: text(2000),
  preflight: string().matches(UUID_V7, "must be the id of a preflight"),
};

function areOutAndIn(value: object | undefined): boolean {
  const rows = Object.entries(value ?? {});
  const isReading = (n: unknown) => typeof n === "number" && Number.isFinite(n) && n >= 0 && n <= 1_000_000;
  return (
    rows.length <= 40 &&
    rows.every(([meter, read]) => {
      if (!isKey(meter) || meter.length > 120 || typeof read !== "object" || read === null) return false;
      const { out, in: back, ...rest } = read as Record<string, unknown>;
      return isReading(out) && isReading(back) && Object.keys(rest).length === 0;
    })
  );
}

/** Stations and tanks have individual names; other fields are closed. */
export const loadFields = () => ({
  stations: totalsSchema().required(),
  litres: totalsSchema().default(undefined).optional(),
});
