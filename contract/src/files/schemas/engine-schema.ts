import { boolean, object, string } from "yup";
import { anyNumber, bounded } from "../../bounds/fields";
import { limit, optional, source, words } from "./parts";

/** Magneto limits and tachometer resolution. */
export const magnetosSchema = optional(
  object({
    maxDropRpm: anyNumber(1, 2000),
    maxDifferenceRpm: anyNumber(1, 2000),
    resolutionRpm: bounded(1, 200),
    tachometerMaxRpm: bounded(100, 8000),
    source: source.required(),
  }).noUnknown(),
);

/** Run-up profile. */
export const runUpSchema = optional(
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
);
