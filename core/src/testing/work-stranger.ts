import {
  asFarAsProbed,
  type Diagnosis,
  type DiagnosisContext,
  diagnoseWays,
  type Observation,
  observe,
} from "../diagnosis/index";
import { type ReadWay, type RunUpReading, readWays, traceOf } from "../run-up/index";
import type { StrangerCase, StrangerTrouble } from "./stranger-cases";

export interface WorkedStranger {
  reading: RunUpReading;
  observations: Observation[];
  diagnosis: Diagnosis;
  /** Chance of each trouble, sides and cylinders added up; nothing wrong under "none". */
  chances: Map<string, number>;
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
  const chances = new Map<string, number>();
  for (const { fault, probability } of diagnosis.ranked) {
    const name = nameOf(fault?.id);
    chances.set(name, (chances.get(name) ?? 0) + probability);
  }
  const order = [...chances].sort((a, b) => b[1] - a[1]).map(([name]) => name);
  return {
    reading,
    observations,
    diagnosis,
    chances,
    place: order.indexOf(one.trouble satisfies StrangerTrouble),
  };
}
