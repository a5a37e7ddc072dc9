import { array, object } from "yup";
import { bounded } from "../../bounds/fields";
import { id, optional, source, words } from "./parts";

/** Battery, loads, and starting demand. */
export const electricalSchema = optional(
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
);
