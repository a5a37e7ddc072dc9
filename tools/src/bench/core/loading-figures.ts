import type { Source } from "@cravix/core/judgement/judgement";
import { checkLoad } from "@cravix/core/mass-and-balance/check-load";
import type { Load, LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { smallestChanges } from "@cravix/core/mass-and-balance/smallest-change";
import { smallestPairs } from "@cravix/core/mass-and-balance/two-changes";
import { type Figure, quantile, within } from "../figure";
import { so } from "../size";

const TURNS = so(60, 2);
const PLACES = 12;
const source: Source = { kind: "common practice", text: "made up for the benchmark", example: true };

/** Twelve stations and four tanks: more than any of these aircraft has. */
const profile: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TAR",
  datum: "the nose",
  weighing: { date: "2025-01-01", emptyKg: 1200, armMm: 2200, source },
  stations: Array.from({ length: PLACES }, (_, i) => ({
    id: `place-${i}`,
    name: `place ${i}`,
    kind: i < 3 ? ("seat" as const) : ("baggage" as const),
    armMm: 1000 + i * 300,
    maxKg: 120,
    ...(i === 0 && { pilot: true as const }),
  })),
  tanks: [0, 1, 2, 3].map((i) => ({ tank: `tank-${i}`, armMm: 2300 + i * 40 })),
  burn: [
    ["tank-2", "tank-3"],
    ["tank-0", "tank-1"],
  ],
  envelope: {
    corners: [
      { kg: 1100, armMm: 1980 },
      { kg: 1500, armMm: 1980 },
      { kg: 2100, armMm: 2250 },
      { kg: 2100, armMm: 2420 },
      { kg: 1100, armMm: 2420 },
    ],
    source,
  },
  maxTakeoffKg: { value: 2100, source },
};
const BURN = { taxiL: 7, tripL: 120 };
const loaded = (aftKg: number): Load => ({
  stations: Object.fromEntries(
    profile.stations.map(({ id }, i) => [id, i < 3 ? 75 : i >= PLACES - 3 ? aftKg : 8]),
  ),
  litres: { "tank-0": 100, "tank-1": 100, "tank-2": 40, "tank-3": 40 },
  kgPerL: 0.72,
});

/** Too heavy and too far aft, all baggage: no single station can fix it. */
const twice: Load = {
  ...loaded(110),
  stations: Object.fromEntries(
    profile.stations.map(({ id }, i) => [id, i < 3 ? 75 : i < 8 ? 40 : i === 8 ? 60 : 110]),
  ),
};

const timed = (work: () => unknown, turns: number): number[] =>
  Array.from({ length: turns }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });

/** The same by trying every half kilogram. */
function byTrying(load: Load): number {
  let tried = 0;
  for (const from of profile.stations)
    for (const to of profile.stations)
      for (let kg = 0.5; kg <= (load.stations[from.id] ?? 0); kg += 0.5) {
        tried++;
        checkLoad(
          profile,
          {
            ...load,
            stations: {
              ...load.stations,
              [from.id]: (load.stations[from.id] ?? 0) - kg,
              [to.id]: (load.stations[to.id] ?? 0) + kg,
            },
          },
          BURN,
        );
      }
  return tried;
}

/** Judging a load, and finding changes. */
export function loadingFigures(): Figure[] {
  const aft = loaded(120);
  if (checkLoad(profile, aft, BURN).faults.length === 0)
    throw new Error("the test load is not outside limits");
  if (smallestChanges(profile, aft, BURN).length === 0)
    throw new Error("no change brings the load within limits");
  if (smallestChanges(profile, twice, BURN).length > 0)
    throw new Error("a single change already brings the load within limits");
  if (smallestPairs(profile, twice, BURN).length === 0)
    throw new Error("no pair of changes brings the load within limits");
  const whole = quantile(
    timed(() => byTrying(aft), Math.max(1, TURNS / 30)),
    0.5,
  );
  const one = quantile(
    timed(() => checkLoad(profile, aft, BURN), TURNS * 20),
    0.99,
  );
  return [
    within("load checked from take-off to zero fuel, 99th percentile", one, "ms", whole, 8),
    within(
      "smallest single change over 12 stations, median",
      quantile(
        timed(() => smallestChanges(profile, aft, BURN), TURNS),
        0.5,
      ),
      "ms",
      whole,
      100,
    ),
    within(
      "smallest pair of changes over 12 stations, median",
      quantile(
        timed(() => smallestPairs(profile, twice, BURN), TURNS),
        0.5,
      ),
      "ms",
      whole,
      100,
    ),
  ];
}
