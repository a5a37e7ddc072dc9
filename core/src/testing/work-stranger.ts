import {
  asFarAsProbed,
  asOftenAsSo,
  type Diagnosis,
  type DiagnosisContext,
  diagnoseWays,
  type Hypothesis,
  type Observation,
  observe,
  TEMPERATURE,
} from "../diagnosis/index";
import { type ReadWay, type RunUpReading, readWays, traceOf } from "../run-up/index";
import type { StrangerCase, StrangerTrouble } from "./stranger-cases";

export interface WorkedStranger {
  reading: RunUpReading;
  observations: Observation[];
  diagnosis: Diagnosis;
  /** Chance of each trouble, sides and cylinders added up; nothing wrong under "none". */
  chances: Map<string, number>;
  /** The same before it was brought to how often it is so. */
  before: Map<string, number>;
  /** The right one's place among them, from 0. */
  place: number;
}

/** What of the library a trouble is: from a trace alone a plug that is fouled is none that is dead. */
export const nameOf = (id: string | undefined): string =>
  id === undefined ? "none" : id === "fouled plug" || id === "dead plug" ? "plug" : id;

/** Reads and judges a stranger's trace with nobody there to be asked. */
export function workStranger(one: StrangerCase): WorkedStranger {
  const { engine, highAndRich, celsius } = one;
  const { profile, maxDropRpm, shape } = engine;
  const ways = readWays(traceOf(one.lines), profile);
  const { reading } = ways[0] as ReadWay;
  const seen = (of: RunUpReading) =>
    observe(of, profile, { maxDropRpm, maxDifferenceRpm: 50, resolutionRpm: 10 });
  const observations = seen(reading);
  const context: DiagnosisContext = {
    cylinders: shape.cylinders,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
    highAndRich,
    icingLikely: celsius < 15,
  };
  const diagnosis = diagnoseWays(
    ways.map((way) => ({
      weight: way.weight,
      observations: seen(way.reading),
      context: asFarAsProbed(context, way.reading),
    })),
  );
  const chances = byTrouble(diagnosis.ranked);
  const order = [...chances].sort((a, b) => b[1] - a[1]).map(([name]) => name);
  return {
    reading,
    observations,
    diagnosis,
    chances,
    before: byTrouble(asOftenAsSo(diagnosis.ranked, 1 / TEMPERATURE)),
    place: order.indexOf(one.trouble satisfies StrangerTrouble),
  };
}

function byTrouble(ranked: readonly Hypothesis[]): Map<string, number> {
  const chances = new Map<string, number>();
  for (const { fault, probability } of ranked) {
    const name = nameOf(fault?.id);
    chances.set(name, (chances.get(name) ?? 0) + probability);
  }
  return chances;
}
