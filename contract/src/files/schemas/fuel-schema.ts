import { FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import { array, object, string } from "yup";
import { anyNumber, bounded } from "../../bounds/fields";
import { id, optional, scale, source, sourced, words } from "./parts";

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

/** Fuel of a type: tanks, consumption, grades. */
export const fuelSchema = optional(
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
);
