import { type FuelPlan, fuelMargin } from "@cravix/core/fuel/margin/fuel-margin";
import { simulateMargin } from "@cravix/core/fuel/margin/simulate-margin";
import { type OilEntry, oilTrend } from "@cravix/core/oil/oil-consumption";
import { theilSen } from "@cravix/core/trend/theil-sen";
import { thinForPlot } from "@cravix/core/trend/thin-for-plot";
import { normalNumbers, seededRandom } from "@cravix/core/units/seeded-random";
import { type Figure, plain, quantile, within } from "../figure";

const PLAN: FuelPlan = {
  usable: { value: 118, sigma: 4 },
  taxi: { value: 4, sigma: 1.2 },
  climb: { value: 3, sigma: 0.6 },
  burn: { value: 34, sigma: 2.7 },
  flight: { value: 60, sigma: 6 },
  reserveMin: 30,
};

/** Ten years of one busy engine, read before every flight and topped up by whole quarts. */
export function tenYearsOfOil(readings = 5000): OilEntry[] {
  const normal = normalNumbers(seededRandom(9));
  const entries: OilEntry[] = [];
  let level = 7.4;
  let hours = 100;
  for (let i = 0; entries.length < readings; i++) {
    const at = (minutes: number) =>
      new Date(Date.UTC(2015, 0, 1) + i * 17_500_000 + minutes * 60_000).toISOString();
    entries.push({
      at: at(0),
      entry: "level",
      qt: Math.max(0, Number((level + 0.1 * normal()).toFixed(1))),
      hours: Number(hours.toFixed(1)),
    });
    if (level < 6.6) {
      entries.push({ at: at(5), entry: "added", qt: 1, hours: Number(hours.toFixed(1)) });
      level += 1;
    }
    hours += 1.1;
    level -= 1.1 * 0.12;
  }
  return entries;
}

function timed(work: () => unknown, turns = 20): number[] {
  return Array.from({ length: turns }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
}

/** Lists every pair, as in Sen's paper, to compare with counting. */
function everyPair(xs: readonly number[], ys: readonly number[]): number {
  const slopes = new Float64Array((xs.length * (xs.length - 1)) / 2);
  let n = 0;
  for (let i = 0; i < xs.length; i++)
    for (let k = i + 1; k < xs.length; k++)
      slopes[n++] = ((ys[k] ?? 0) - (ys[i] ?? 0)) / ((xs[k] ?? 0) - (xs[i] ?? 0));
  return slopes.sort()[n >> 1] ?? 0;
}

/** Simulation, trend and thinning on Node; browser figures are in fluid-pages. */
export function fluidFigures(): Figure[] {
  const entries = tenYearsOfOil();
  const trended = timed(() => oilTrend(entries), 12);
  const { use } = oilTrend(entries);
  const xs = use.map((u) => u.hours);
  const ys = use.map((u) => u.usedQt);
  const lines = timed(() => theilSen(xs, ys), 12);
  const pairs = timed(() => everyPair(xs, ys), 2);
  const flown = timed(() => simulateMargin(PLAN, 10_000, 1));
  const closed = timed(() => {
    for (let i = 0; i < 1000; i++) fuelMargin(PLAN);
  });
  const points = use.map((u) => ({ x: u.hours, y: u.levelQt }));
  const thinned = timed(() => thinForPlot(points, 360), 60);
  const copied = timed(() => points.map((p) => ({ ...p })), 60);
  return [
    plain(
      "fuel worst case over 10,000 simulated flights in Node, median",
      quantile(flown, 0.5),
      "ms",
      quantile(closed, 0.5),
    ),
    within(
      "oil trend over ten years (5,000 entries) in Node, median",
      quantile(trended, 0.5),
      "ms",
      quantile(pairs, 0.5),
      50,
    ),
    plain("robust regression line, median", quantile(lines, 0.5), "ms", quantile(pairs, 0.5)),
    plain("downsampling for the plot, median", quantile(thinned, 0.5), "ms", quantile(copied, 0.5)),
  ];
}
