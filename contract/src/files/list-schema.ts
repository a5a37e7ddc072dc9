import { CONDITIONS, ITEM_KINDS } from "@cravix/core/aircraft/aircraft-type";
import { PILOT_IN_DATE } from "@cravix/core/airworthiness/people/pilot-in-date";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { upgradeFile } from "@cravix/core/legacy-vocabulary";
import { type AnyObjectSchema, array, boolean, object, string } from "yup";
import { anyNumber, key, name, requiredText, text } from "../bounds/fields";
import {
  airfieldSchema,
  day,
  dueItemSchema,
  factsSchema,
  groupSchema,
  itemFields,
  loadingSchema,
  meterSchema,
  minimaSetSchema,
  profileFields,
  ruleSetSchema,
  stationSchema,
  totalsSchema,
} from "./schemas";
import { preferencesSchema } from "./schemas/preferences-schema";
import { type FileFault, validateFile } from "./validate-file";

const optional = (schema: AnyObjectSchema) => schema.default(undefined).optional();

/** Maximum of a total the log adds up: far more than any entry. */
const MAX_SUM = 1e12;
/** A meter whose earlier replacements have been summed. */
const pinnedMeter = meterSchema.shape({ offset: anyNumber(-MAX_SUM, MAX_SUM) });

/** An item as asked: from the type, added to the aircraft, or an open discrepancy. */
const currentItem = object({
  ...itemFields,
  kind: string().required().oneOf(ITEM_KINDS),
  title: requiredText(2000),
  // A known discrepancy: its last measure, its placard and how it was deactivated.
  good: requiredText(1000),
  why: requiredText(2000),
  miss: string().required().oneOf(FINDING_GRADES),
  choices: array()
    .of(object({ value: key(), label: requiredText(120) }).required())
    .max(60),
  discrepancyId: name(),
  cause: name(),
});

/** Schema of a composed checklist: everything used by folds, judgements and pages. */
const listSchema = object({
  format: string().required().oneOf(["cravix.list/2"]),
  registration: key(20),
  year: anyNumber(1900, 2100).required(),
  conditions: array().of(string().required().oneOf(CONDITIONS)).required().max(CONDITIONS.length),
  type: object(profileFields).required(),
  variant: optional(object({ name: requiredText(80), what: requiredText(400) })),
  preferences: optional(preferencesSchema),
  stations: array().of(stationSchema.required()).required().max(300),
  items: array().of(currentItem.required()).required().max(6000),
  groups: array().of(groupSchema.required()).max(500),
  lineUp: array().of(currentItem.required()).max(200),
  after: array().of(currentItem.required()).max(1000),
  airfield: optional(airfieldSchema),
  rules: optional(ruleSetSchema),
  facts: optional(factsSchema),
  memory: optional(
    object({
      hours: optional(object({ value: anyNumber().required(), at: text(40).required() })),
      faults: array().of(text(2000).required()).required().max(5000),
    }),
  ),
  loading: optional(loadingSchema),
  minima: array().of(minimaSetSchema.required()).max(40),
  ownUnknown: boolean().oneOf([true]),
  pilotInDate: string().oneOf(PILOT_IN_DATE),
  papers: optional(
    object({
      timeZone: key(60),
      meters: array().of(pinnedMeter.required()).required().max(40),
      totals: totalsSchema(MAX_SUM).required(),
      dues: array()
        .of(
          object({
            item: dueItemSchema.required(),
            due: object({
              item: key(),
              points: array()
                .of(
                  object({
                    limit: anyNumber(0, 20).required(),
                    date: day(),
                    meter: name(),
                    // Below zero after a component was fitted or a meter replaced: overdue since before the count began.
                    at: anyNumber(-MAX_SUM, MAX_SUM),
                    tolerances: array().required().max(10),
                  }).required(),
                )
                .required()
                .max(20),
              unknown: boolean().required(),
              problem: text(1000),
            }).required(),
            own: optional(totalsSchema(MAX_SUM)),
          }).required(),
        )
        .required()
        .max(5000),
    }),
  ),
  deferrals: optional(
    object().test("deferrals", "must map each discrepancy to its deferral", (value) =>
      Object.values(value ?? {}).every(
        (one) => typeof one === "object" && one !== null && Array.isArray((one as { for?: unknown }).for),
      ),
    ),
  ),
  measureLimits: optional(
    object().test("measureLimits", "must map each discrepancy to its measured limit", (value) =>
      Object.values(value ?? {}).every((one) => isMeasureLimit(one)),
    ),
  ),
  differences: array()
    .of(object({ itemId: key(), why: requiredText(80) }).required())
    .required()
    .max(20_000),
});

function isMeasureLimit(one: unknown): boolean {
  if (typeof one !== "object" || one === null) return false;
  const { most, unit, source } = one as Record<string, unknown>;
  return (
    typeof most === "number" &&
    Number.isFinite(most) &&
    typeof unit === "string" &&
    typeof source === "string"
  );
}

/** Reads a composed checklist of any version, upgraded. Never throws: faults are returned with their path. */
export function readList(given: unknown): { list: ComposedList } | { faults: FileFault[] } {
  const value = upgradeFile(given);
  const faults = validateFile(listSchema, value);
  if (faults.length > 0) return { faults };
  const list = value as ComposedList;
  const stations = new Set(list.stations.map((station) => station.id));
  const lost = list.items.findIndex((item) => !stations.has(item.station));
  return lost < 0
    ? { list }
    : { faults: [{ path: `items[${lost}].station`, expected: "a station of this checklist" }] };
}
