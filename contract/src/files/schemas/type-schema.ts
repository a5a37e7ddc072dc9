import { CONDITIONS, PHASES, STATION_PHASES, STATION_ROLES } from "@cravix/core/aircraft/aircraft-type";
import { BELT_KINDS, CABIN_ENTRIES, PARACHUTE_KINDS } from "@cravix/core/aircraft/cabin";
import { BRAKE_WAYS, SURFACE_WAYS } from "@cravix/core/aircraft/preferences";
import { ACCEPTED_WEATHER } from "@cravix/core/weather/present-hazards";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, text } from "../../bounds/fields";
import { electricalSchema } from "./electrical-schema";
import { magnetosSchema, runUpSchema } from "./engine-schema";
import { fuelSchema } from "./fuel-schema";
import { itemSchema } from "./item-schema";
import { method } from "./method";
import { oilSchema } from "./oil-schema";
import { id, optional, source, sourced, words, years } from "./parts";
import { launchSchema, performanceSchema } from "./performance-schema";

/** Parts a model year can override; each subject declares its own. */
const limits = {
  fuel: fuelSchema,
  oil: oilSchema,
  magnetos: magnetosSchema,
  runUp: runUpSchema,
  crosswind: sourced("kt"),
  electrical: electricalSchema,
};

export const stationFields = {
  id: id(),
  name: words(80),
  phase: string().required().oneOf(STATION_PHASES),
  role: string().oneOf(STATION_ROLES),
};

export const stationSchema = object({ ...stationFields, x: anyNumber(), y: anyNumber() }).noUnknown();

export const ruleSchema = object({
  id: id(),
  first: id(),
  waits: object({ items: array().of(id()).max(50), touches: text(40) })
    .noUnknown()
    .required(),
  why: words(),
  method: method(),
}).noUnknown();

/** Items on one card. */
export const groupSchema = object({
  id: id(),
  title: words(80),
  items: array().of(id()).required().min(2).max(12),
  done: text(40),
}).noUnknown();

/** A corner of a wall: x and y. */
const corner = array().of(anyNumber().required()).length(2);

const recommendedWay = (ways: readonly string[]) =>
  optional(object({ way: string().required().oneOf(ways), why: words() }).noUnknown());

/** Fields of a type besides stations and items, included in a composed checklist. */
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
            d: words(4000).matches(/^[MLHVCSQTAZmlhvcsqtaz0-9 ,.\-e]+$/, "must be SVG path data"),
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
  rules: array().of(ruleSchema.required()).max(100),
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
  notOffered: array()
    .of(
      object({ condition: string().required().oneOf(CONDITIONS), why: words() })
        .noUnknown()
        .required(),
    )
    .max(CONDITIONS.length),
  engines: array().of(words(20)).min(2).max(4),
  performance: performanceSchema,
  launch: launchSchema,
  cabin: optional(
    object({
      entry: string().required().oneOf(CABIN_ENTRIES),
      exits: text(80),
      jettison: boolean().oneOf([true]),
      belts: string().required().oneOf(BELT_KINDS),
      parachute: string().oneOf(PARACHUTE_KINDS),
      extinguisher: text(80),
      beacon: text(80),
      hammer: text(80),
      propeller: boolean().oneOf([true]),
    }).noUnknown(),
  ),
  weatherAccepted: array()
    .of(
      object({ what: string().required().oneOf(ACCEPTED_WEATHER), source: source.required() })
        .noUnknown()
        .required(),
    )
    .max(ACCEPTED_WEATHER.length),
  tailwheel: boolean().oneOf([true]),
  ...limits,
};

/** Limits of some model years. */
export const variantSchema = object({
  id: id(),
  name: words(80),
  what: words(),
  years: years.required(),
  ...limits,
}).noUnknown();

export const aircraftTypeSchema = object({
  format: string().required().oneOf(["cravix.aircraft-type/2"]),
  ...profileFields,
  stations: array().of(stationSchema.required()).required().max(300),
  groups: array().of(groupSchema.required()).max(500),
  items: array().of(itemSchema.required()).required().max(5000),
  variants: array().of(variantSchema.required()).max(20),
}).noUnknown();
