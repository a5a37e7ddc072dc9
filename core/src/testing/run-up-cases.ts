import {
  type Diagnosis,
  type DiagnosisContext,
  diagnose,
  type Observation,
  type OpenQuestion,
  observe,
  openQuestions,
  outcomeOf,
  rankTests,
} from "../diagnosis/index";
import {
  type EngineShape,
  FAULT_KINDS,
  type FaultKind,
  type MonitorOptions,
  type SimulatedFault,
  simulateRunUp,
  usualPlan,
} from "../engine-model/index";
import type { LimitRange } from "../judgement/judgement";
import {
  type MagnetoSideOrder,
  type Mark,
  type RunUpProfile,
  type RunUpReading,
  readRunUp,
  traceOf,
} from "../run-up/index";

/** Four kinds of engine, like the demo's types; limits are example values. */
export interface CaseEngine {
  name: string;
  shape: EngineShape;
  profile: RunUpProfile;
  maxDropRpm: number;
}

const limit = (min: number | undefined, max: number | undefined, unit: LimitRange["unit"]): LimitRange => ({
  ...(min !== undefined && { min }),
  ...(max !== undefined && { max }),
  unit,
  source: { kind: "common practice", text: "example value", example: true },
});

function engine(
  name: string,
  shape: EngineShape,
  rpm: number,
  maxDropRpm: number,
  idle: [number, number],
): CaseEngine {
  return {
    name,
    shape,
    maxDropRpm,
    profile: {
      ...shape,
      rpm,
      within: 50 * Math.max(1, rpm / 1800),
      firstSide: "right",
      suction: shape.vacuumPump,
      heat: shape.fuelSystem === "carburettor" ? "carburettor heat" : "alternate air",
      leanAboveFt: 4000,
      charging: shape.volts === 28 ? limit(27, 29, "V") : limit(13.5, 14.5, "V"),
      ...(shape.vacuumPump && { suctionGreen: limit(4.5, 5.5, "inHg") }),
      ...(shape.propeller === "constant speed" && { propellerCheck: { dropRpm: 300, withinS: 1.5 } }),
      oilPressure: limit(50, 90, "psi"),
      oilTemperature: limit(75, 245, "°F"),
      head: limit(undefined, 400, "°F"),
      idle: { ...limit(...idle, "rpm"), seconds: 4 },
      clear: { rpm: Math.round((rpm * 10) / 9), seconds: 60, tries: 2, headMax: limit(undefined, 400, "°F") },
      groundLean: { rpm: 1200, turnsIn: 3 },
      source: { kind: "common practice", text: "example value", example: true },
    },
  };
}

const CARBURETTOR = { fuelSystem: "carburettor" as const };
export const CASE_ENGINES: readonly CaseEngine[] = [
  engine(
    "four cylinders, carburettor, fixed",
    { ...CARBURETTOR, cylinders: 4, propeller: "fixed", volts: 28, ratedRpm: 2700, vacuumPump: true },
    1800,
    125,
    [550, 800],
  ),
  engine(
    "six cylinders, injected, constant speed",
    {
      cylinders: 6,
      fuelSystem: "injected",
      propeller: "constant speed",
      volts: 28,
      ratedRpm: 2700,
      vacuumPump: false,
    },
    1800,
    150,
    [550, 800],
  ),
  engine(
    "four cylinders, geared",
    { ...CARBURETTOR, cylinders: 4, propeller: "fixed", volts: 14, ratedRpm: 5500, vacuumPump: false },
    4000,
    300,
    [1300, 2000],
  ),
  engine(
    "nine cylinders, radial",
    {
      ...CARBURETTOR,
      cylinders: 9,
      propeller: "constant speed",
      volts: 28,
      ratedRpm: 2300,
      vacuumPump: true,
    },
    1700,
    100,
    [450, 700],
  ),
];

/** True if this engine can have and show this fault. */
export function canHave(kind: FaultKind, { shape }: CaseEngine): boolean {
  if (kind === "governor slow") return shape.propeller === "constant speed";
  if (kind === "suction low") return shape.vacuumPump;
  return (
    !(kind === "carburettor ice" || kind === "heat cable off" || kind === "rich at altitude") ||
    shape.fuelSystem === "carburettor"
  );
}

export interface RunUpCase {
  engine: CaseEngine;
  fault: SimulatedFault;
  options: MonitorOptions;
  /** Without the coach's prompts, as in a file; the pilot answers questions afterwards. */
  unprompted?: boolean;
  /** Duration of steps relative to usual: 0.65 is a pilot in a hurry. */
  pace?: number;
}

/** The n-th case of a kind: side, cylinder, severity, air and noise follow from n. */
export function runUpCase(kind: FaultKind, n: number, from: CaseEngine, seed = 1): RunUpCase {
  const side = n % 2 ? "left" : "right";
  const cylinder = 1 + (n % from.shape.cylinders);
  const fault = { kind, side, cylinder } as SimulatedFault;
  return {
    engine: from,
    fault,
    options: {
      shape: from.shape,
      runUpRpm: from.profile.rpm,
      clearRpm: from.profile.clear.rpm,
      air: {
        pressureHpa: kind === "rich at altitude" ? 780 : 1013 - (n % 4) * 20,
        celsius: kind === "carburettor ice" ? 6 : 15 + (n % 10),
        humidity: 0.6,
      },
      fault,
      severity: (n % 5) / 4,
      seed: n * 131 + kind.length * 17 + seed,
    },
  };
}

export interface WorkedCase {
  reading: RunUpReading;
  observations: Observation[];
  diagnosis: Diagnosis;
  context: DiagnosisContext;
  /** Steps with a clear change, with their offset from the true time; absent if not found. */
  steps: { step: string; offS?: number; size: number }[];
  drops: { side: string; truth: number; read?: number }[];
}

const CHANGING = new Set(["right", "left", "both", "heat", "cold", "idle"]);

/** Runs a case through engine, reading and diagnosis, and through plug clearing if that is the next best test. */
export function workCase({
  engine: { profile, maxDropRpm, shape },
  options,
  fault,
  unprompted = false,
  pace = 1,
}: RunUpCase): WorkedCase {
  const plan = usualPlan(options);
  for (const step of plan.steps) step.seconds *= pace;
  const sim = simulateRunUp(options, plan);
  const marks = (told: { step: string; at: number }[]) =>
    told.map(({ step, at }) => ({ step, t: at }) as Mark);
  const trace = traceOf(sim.samples);
  const read = (sides?: MagnetoSideOrder) =>
    readRunUp(trace, profile, unprompted ? undefined : marks(sim.told), sides);
  const done = new Set<string>(sim.told.map(({ step }) => step));
  const { reading, told, asked } = askPilot(read, profile, fault, done);
  const limits = {
    maxDropRpm,
    maxDifferenceRpm: 50 * Math.max(1, profile.rpm / 1800),
    resolutionRpm: 10,
  };
  const observations = observe(reading, profile, limits).filter(
    ({ feature }) => feature !== "shown" || !asked.has("other side"),
  );
  observations.push(...told);
  for (const side of ["right", "left"] as const)
    if (
      observations.some((o) => o.feature === "drop" && o.side === side && o.state === "none") &&
      !told.some((o) => o.feature === "turned" && o.side === side)
    )
      observations.push({ feature: "turned", state: "confirmed", side, words: "Asked: the key was turned." });
  const context: DiagnosisContext = {
    cylinders: shape.cylinders,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
    highAndRich: options.air.pressureHpa < 850,
    icingLikely: options.air.celsius < 12,
  };
  let diagnosis = diagnose(observations, context);
  const [next] = rankTests(diagnosis.ranked, context, observations);
  if (next?.test.id === "clear" && diagnosis.ranked[0]?.fault) {
    const again = simulateRunUp(options, {
      steps: [
        { step: "run-up", seconds: 12 },
        { step: "clear", seconds: 80 },
        { step: "run-up", seconds: 12 },
        { step: "right", seconds: 8 },
        { step: "both", seconds: 7 },
        { step: "left", seconds: 8 },
        { step: "both", seconds: 7 },
      ],
    });
    const after = observe(readRunUp(traceOf(again.samples), profile, marks(again.told)), profile, limits);
    observations.push({
      feature: "cleared",
      state: outcomeOf(observations, after),
      words: "Cleared for a minute.",
    });
    diagnosis = diagnose(observations, context);
  }
  const scale = profile.rpm / 1800;
  const steps: WorkedCase["steps"] = [];
  const drops: WorkedCase["drops"] = [];
  for (const { step, at, before, settled } of sim.rpmAt) {
    const size = Math.abs(before - settled);
    if (CHANGING.has(step) && size >= 12 * scale) {
      const offs = reading.steps.filter((f) => f.step === step && f.seen).map((f) => Math.abs(f.at - at));
      const offS = Math.min(...offs);
      steps.push({ step, size, ...(offS < 5 && { offS }) });
    }
    if (step !== "right" && step !== "left") continue;
    const read = reading[step]?.drop;
    drops.push({
      side: step,
      truth: settled < 200 ? before : before - settled,
      ...(read !== undefined && { read }),
    });
  }
  return { reading, observations, diagnosis, context, steps, drops };
}

/** A pilot who knows what the hand did, not what is wrong, and answers the open questions. */
function askPilot(
  read: (sides?: MagnetoSideOrder) => RunUpReading,
  profile: RunUpProfile,
  fault: SimulatedFault,
  done: ReadonlySet<string>,
): { reading: RunUpReading; told: Observation[]; asked: ReadonlySet<OpenQuestion["id"]> } {
  const asked = new Set<OpenQuestion["id"]>();
  const told: Observation[] = [];
  let reading = read();
  for (;;) {
    const [question] = openQuestions(reading, profile, asked);
    if (!question) return { reading, told, asked };
    asked.add(question.id);
    if (question.id === "order") {
      // As on its checklist.
      reading = read({ first: profile.firstSide });
      continue;
    }
    if (question.id === "which side") {
      // Ungrounded or dead: something happens on one side only.
      const side = "side" in fault ? fault.side : reading.tries[0]?.side;
      if (side) reading = read({ first: side });
      continue;
    }
    const other = reading.right ? "left" : "right";
    const step = question.id === "other side" ? other : question.id === "any side" ? "right" : question.id;
    const answer = question.answers.at(done.has(step) ? 0 : -1);
    told.push(...(answer?.told ?? []));
  }
}

/** Rank of the simulated fault, from 0; −1 if absent. */
export function placeOf({ fault }: RunUpCase, { ranked }: Diagnosis): number {
  return ranked.findIndex(
    (h) =>
      (h.fault?.id ?? "none") === fault.kind &&
      (h.side === undefined || h.side === ("side" in fault ? fault.side : undefined)) &&
      (h.cylinder === undefined || h.cylinder === ("cylinder" in fault ? fault.cylinder : undefined)),
  );
}

/** Counts: true fault ranked first and within three, false alarms, steps and drops. */
export interface Tally {
  cases: number;
  first: number;
  three: number;
  healthy: number;
  alarms: number;
  worked: { engine: CaseEngine; steps: WorkedCase["steps"]; drops: WorkedCase["drops"] }[];
}

/**
 * Runs every fault of every engine `each` times and the healthy engine `healthyEach` times; `from` is the number of the first
 * case.
 */
export function tally({
  each,
  healthyEach = each,
  from = 0,
  seed,
  change = (one) => one,
  engines = CASE_ENGINES,
}: {
  each: number;
  healthyEach?: number;
  from?: number;
  seed: number;
  change?: (one: RunUpCase) => RunUpCase;
  /** Default: all. */
  engines?: readonly CaseEngine[];
}): Tally {
  const made: Tally = { cases: 0, first: 0, three: 0, healthy: 0, alarms: 0, worked: [] };
  for (const engine of engines)
    for (const kind of FAULT_KINDS) {
      if (!canHave(kind, engine)) continue;
      for (let n = 0; n < (kind === "none" ? healthyEach : each); n++) {
        const one = change(runUpCase(kind, n + from, engine, seed));
        const { diagnosis, steps, drops } = workCase(one);
        const place = placeOf(one, diagnosis);
        made.worked.push({ engine, steps, drops });
        if (kind === "none") {
          made.healthy++;
          if (place !== 0) made.alarms++;
          continue;
        }
        made.cases++;
        if (place === 0) made.first++;
        if (place >= 0 && place < 3) made.three++;
      }
    }
  return made;
}
