import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { airworthinessSnapshot, judgeAirworthiness } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { dateOfDay, dayNumber } from "@cravix/core/airworthiness/calendar/local-date";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import {
  addLine,
  foldTotals,
  type TechnicalLogEntry,
} from "@cravix/core/airworthiness/flights/technical-log-entry";
import { planVisits, type VisitItem } from "@cravix/core/airworthiness/plan/plan-visits";
import type { Source } from "@cravix/core/judgement/judgement";
import { seededRandom } from "@cravix/core/units/seeded-random";
import { type Figure, plain, quantile, within } from "../figure";
import { so } from "../size";

const FLIGHTS = so(30_000, 500);
const DUE_ITEMS = 500;
const METERS: RecordMeter[] = [
  { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1, reading: "hours" },
  { id: "landings", name: "Landings", kind: "landings", decimals: 0 },
];
const SOURCE: Source = { kind: "common practice", text: "made up for the benchmark", example: true };

function lines(): TechnicalLogEntry[] {
  const random = seededRandom(3);
  let hours = 1000;
  return Array.from({ length: FLIGHTS }, (_, i) => {
    const out = hours;
    hours = Math.round((hours + 0.4 + random()) * 10) / 10;
    const off = Date.UTC(1990, 0, 1) + i * 8 * 3_600_000;
    return {
      id: String(i).padStart(8, "0"),
      registration: "QX-TAR",
      from: "here",
      to: "here",
      off: new Date(off).toISOString(),
      on: new Date(off + 5_400_000).toISOString(),
      pilot: "ines",
      meters: { hours: { out, in: hours } },
      counts: { landings: 1 + Math.floor(random() * 4) },
    };
  });
}

function items(): DueItem[] {
  return Array.from({ length: DUE_ITEMS }, (_, i) => ({
    id: `item-${i}`,
    name: `Item ${i}`,
    kind: "inspection" as const,
    limits:
      i % 3 === 0
        ? [{ by: "months" as const, months: 1 + (i % 36), to: "month end" as const }]
        : [
            { by: "meter" as const, meter: i % 3 === 1 ? "hours" : "landings", every: 25 + (i % 40) * 25 },
            { by: "months" as const, months: 12, to: "month end" as const },
          ],
    miss: "stop" as const,
    source: SOURCE,
  }));
}

function timed(work: () => unknown, turns: number): number[] {
  return Array.from({ length: turns }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
}

/** A group's workshop items: sixty per aircraft, from an oil change to an overhaul. */
function fleet(aircraft: number, each: number): VisitItem[][] {
  const random = seededRandom(5);
  const intervals = [50, 60, 61, 90, 120, 122, 180, 183, 365, 365, 365, 400, 730, 730, 730, 1095, 2000, 3000];
  return Array.from({ length: aircraft }, () =>
    Array.from({ length: each }, (_, i) => {
      const interval = intervals[Math.floor(random() * intervals.length)] as number;
      return { id: `${i}`, interval, due: Math.floor(random() * interval) };
    }),
  );
}

/** Baseline without a planner: visit when something is due, and do everything due within a month. */
function month(list: readonly VisitItem[], horizon: number): number {
  const due = list.map((item) => item.due);
  let visits = 0;
  for (;;) {
    const day = Math.min(...due);
    if (day >= horizon) return visits;
    visits++;
    due.forEach((d, i) => {
      if (d < day + 30) due[i] = day + (list[i] as VisitItem).interval;
    });
  }
}

/** Due items from cached totals, one more flight, and a whole group's visits. */
export function airworthinessFigures(): Figure[] {
  const log = lines();
  const start = { hours: 1000, landings: 0 };
  const whole = foldTotals(start, log, METERS);
  const last = dateOfDay(dayNumber("1990-01-01") + Math.ceil(FLIGHTS / 3));
  const record = {
    format: "cravix.airworthiness/1" as const,
    registration: "QX-TAR",
    meters: METERS,
    start: { at: "1990-01-01T00:00:00.000Z", totals: start },
    components: [],
    fittings: [],
    items: items(),
    works: items().map(({ id }) => ({ item: id, date: last, totals: whole.totals })),
  };
  const asked = { at: `${last}T12:00:00.000Z`, minutes: 90, conditions: [] };
  const papers = airworthinessSnapshot(record, { totals: whole.totals });
  const judged = timed(() => judgeAirworthiness(papers, asked), so(40, 2));
  const bare = timed(() => record.items.map((item) => item.limits.length), so(40, 2));
  const more = timed(() => addLine(whole, log[0] as TechnicalLogEntry, METERS), so(2000, 5));
  const anew = timed(() => foldTotals(start, log, METERS), so(10, 1));
  const open = (day: number) => day % 7 < 5 && !(day > 200 && day < 215);
  const group = fleet(20, 60);
  let planned = 0;
  let exact = 0;
  const plans = timed(
    () => {
      planned = 0;
      exact = 0;
      for (const list of group) {
        const plan = planVisits(list, { horizon: 730, open });
        planned += plan.visits.length;
        exact += Number(plan.exact);
      }
    },
    so(5, 1),
  );
  const byMonth = group.reduce((sum, list) => sum + month(list, 730), 0);
  return [
    within(
      `${DUE_ITEMS} due items assessed from cached totals of ${FLIGHTS} flights, median (baseline: iterating over their limits)`,
      quantile(judged, 0.5),
      "ms",
      Math.max(0.001, quantile(bare, 0.5)),
      10,
    ),
    within(
      "adding one flight to the totals, 99th percentile (baseline: summing all flights)",
      quantile(more, 0.99),
      "ms",
      quantile(anew, 0.5),
      1,
    ),
    within(
      "planning workshop visits for 20 aircraft × 60 items over 24 months, median (baseline: a visit when an item is due, with everything due within a month)",
      quantile(plans, 0.5),
      "ms",
      Math.max(
        0.001,
        quantile(
          timed(() => group.map((list) => month(list, 730)), so(5, 1)),
          0.5,
        ),
      ),
      500,
    ),
    plain(
      "workshop visits needed (baseline: a visit with everything due within a month)",
      planned,
      "visits",
      byMonth,
    ),
    plain("aircraft searched exhaustively (baseline: all)", exact, "aircraft", group.length),
  ];
}
