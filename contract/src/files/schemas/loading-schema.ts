import { STATION_KINDS, WATER_WAYS } from "@cravix/core/mass-and-balance/loading-profile";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded } from "../../bounds/fields";
import { day } from "./airworthiness-schema";
import { id, optional, source, words } from "./parts";

const arm = () => bounded(-20_000, 20_000);
const mass = () => bounded(0, 20_000);
const limit = () => object({ value: mass(), source: source.required() }).noUnknown();

/** Mass and balance data of one aircraft. */
export const loadingSchema = object({
  format: string().required().oneOf(["cravix.loading/1"]),
  registration: string()
    .required()
    .matches(/^[A-Z0-9]{1,3}-[A-Z0-9]{2,5}$/, "must be a registration such as QX-TAR"),
  datum: words(200),
  weighing: object({
    date: day().required(),
    emptyKg: bounded(1, 20_000),
    armMm: arm(),
    momentKgMm: anyNumber(-1e9, 1e9),
    source: source.required(),
  })
    .noUnknown()
    .required(),
  stations: array()
    .of(
      object({
        id: id(),
        name: words(60),
        kind: string().required().oneOf(STATION_KINDS),
        armMm: arm(),
        maxKg: anyNumber(0, 5000),
        minKg: anyNumber(0, 500),
        pilot: boolean().oneOf([true]),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .min(1)
    .max(20),
  tanks: array()
    .of(
      object({
        tank: id(),
        armMm: arm(),
        kgPerL: anyNumber(0.5, 1.5),
        water: string().oneOf(WATER_WAYS),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(12),
  burn: array().of(array().of(id()).required().min(1).max(12)).max(12),
  groups: array()
    .of(
      object({ name: words(60), stations: array().of(id()).required().min(1).max(20), maxKg: mass() })
        .noUnknown()
        .required(),
    )
    .max(12),
  envelope: object({
    corners: array()
      .of(object({ kg: mass(), armMm: arm() }).noUnknown().required())
      .required()
      .min(3)
      .max(24),
    source: source.required(),
  })
    .noUnknown()
    .required(),
  maxTakeoffKg: limit().required(),
  maxRampKg: optional(limit()),
  maxLandingKg: optional(limit()),
  maxZeroFuelKg: optional(limit()),
  nonLifting: optional(
    object({
      emptyKg: mass(),
      stations: array().of(id()).required().max(20),
      max: limit().required(),
    }).noUnknown(),
  ),
}).noUnknown();
