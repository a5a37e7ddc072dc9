import { CHART_CONTAINS } from "@cravix/core/performance/performance-profile";
import { array, mixed, object, string } from "yup";
import { anyNumber, bounded } from "../../bounds/fields";
import { optional, source } from "./parts";

const axis = () => array().of(anyNumber(-5000, 30_000).required()).required().min(1).max(20);

/** Values over mass, pressure altitude and temperature. Completeness and order are checked when the file is read. */
const chartSchema = object({
  kg: axis(),
  pressureAltitudeFt: axis(),
  celsius: axis(),
  values: array()
    .of(
      array()
        .of(array().of(anyNumber(-5000, 10_000).required()).required().max(20))
        .required()
        .max(20),
    )
    .required()
    .max(20),
}).noUnknown();

const charted = () =>
  optional(object({ chart: chartSchema.required(), source: source.required() }).noUnknown());

const distance = () =>
  object({
    kind: string().required().oneOf(["chart", "single"]),
    kg: anyNumber(1, 20_000),
    rollM: mixed().required(),
    over50M: mixed().required(),
    source: source.required(),
  })
    .noUnknown()
    .test(
      "by-kind",
      "must have charts for ground roll and distance over 50 ft, or one mass with both distances",
      (value) => {
        const { kind, kg, rollM, over50M } = (value ?? {}) as Record<string, unknown>;
        const metres = (one: unknown) => typeof one === "number" && one > 0 && one <= 10_000;
        if (kind === "single") return typeof kg === "number" && metres(rollM) && metres(over50M);
        return [rollM, over50M].every((one) => chartSchema.isValidSync(one, { strict: true }));
      },
    );

const kt = () => bounded(10, 300);

/** Take-off, landing and climb performance of a type. */
export const performanceSchema = optional(
  object({
    takeOff: distance().required(),
    landing: distance().required(),
    corrections: optional(
      object({
        headwindPercentPerKt: anyNumber(0, 10),
        tailwindPercentPerKt: anyNumber(0, 30),
        mostHeadwindKt: anyNumber(0, 60),
        mostTailwindKt: anyNumber(0, 30),
        grassPercentOfRoll: anyNumber(0, 100),
        wetGrassPercentOfRoll: anyNumber(0, 150),
        slopePercentPerPercent: anyNumber(0, 50),
        contained: array().of(string().required().oneOf(CHART_CONTAINS)).max(CHART_CONTAINS.length),
        source: source.required(),
      }).noUnknown(),
    ),
    liftOffKt: kt(),
    approachKt: kt(),
    climbKt: kt(),
    climbFpm: charted(),
    oneEngineFpm: charted(),
    oneEngineKt: anyNumber(10, 300),
    accelerateStopM: charted(),
  }).noUnknown(),
);

const launchLimit = optional(
  object({
    maxWindKt: anyNumber(0, 80),
    maxCrossKt: anyNumber(0, 60),
    maxTailKt: anyNumber(0, 30),
    climbFpm: anyNumber(0, 3000),
    source: source.required(),
  }).noUnknown(),
);

/** Launch methods of a glider. */
export const launchSchema = optional(object({ winch: launchLimit, aerotow: launchLimit }).noUnknown());
