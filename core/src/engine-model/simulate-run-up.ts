import { seededRandom } from "../units/seeded-random";
import { Monitor, type MonitorOptions, type MonitorSample } from "./monitor";
import type { PilotStep } from "./pilot";

/** A simulated run-up, with the ground truth. */
export interface SimulatedRunUp {
  samples: MonitorSample[];
  /** Prompts given to the pilot. */
  told: { step: PilotStep; at: number }[];
  /** When the hand really moved. */
  moved: { step: PilotStep; at: number }[];
  /** Mean rpm without noise or shake just before the hand moved, and at the end of the step. */
  rpmAt: { step: PilotStep; at: number; before: number; settled: number }[];
}

export interface RunUpPlan {
  steps: { step: PilotStep; seconds: number }[];
}

/**
 * Usual order for this engine: run-up, one side, both, other side, both, heat, propeller, load, idle. Timing varies slightly with
 * the seed.
 */
export function usualPlan({ shape, seed }: MonitorOptions, first: "right" | "left" = "right"): RunUpPlan {
  const random = seededRandom(seed + 31);
  const about = (seconds: number) => seconds * (0.85 + 0.4 * random());
  const other = first === "right" ? "left" : "right";
  return {
    steps: [
      { step: "ground", seconds: about(6) },
      { step: "run-up", seconds: about(14) },
      { step: first, seconds: about(8) },
      { step: "both", seconds: about(7) },
      { step: other, seconds: about(8) },
      { step: "both", seconds: about(7) },
      ...(shape.propeller === "constant speed" ? [{ step: "propeller" as const, seconds: about(14) }] : []),
      { step: "heat", seconds: about(10) },
      { step: "cold", seconds: about(8) },
      { step: "load", seconds: about(8) },
      { step: "idle", seconds: about(9) },
      { step: "ground", seconds: about(6) },
    ],
  };
}

/**
 * Runs a plan through a simulated monitor. The pilot stops when the engine has stopped. Seconds. Deterministic per seed. Source:
 * our own engine model, which says nothing about a real one.
 */
export function simulateRunUp(options: MonitorOptions, plan: RunUpPlan = usualPlan(options)): SimulatedRunUp {
  const monitor = new Monitor(options);
  const samples: MonitorSample[] = [];
  const told: SimulatedRunUp["told"] = [];
  const rpmAt: SimulatedRunUp["rpmAt"] = [];
  for (const { step, seconds } of plan.steps) {
    const from = monitor.now;
    told.push({ step, at: from });
    monitor.tell(step);
    let before = monitor.engine.meanRpm;
    const seen = monitor.pilot.moved.length;
    while (monitor.now < from + seconds) {
      if (monitor.pilot.moved.length === seen) before = monitor.engine.meanRpm;
      samples.push(monitor.next());
    }
    const at = monitor.pilot.moved.at(-1)?.at ?? from;
    rpmAt.push({ step, at, before, settled: monitor.engine.meanRpm });
    if (monitor.engine.stopped) break;
  }
  return { samples, told, moved: monitor.pilot.moved, rpmAt };
}
