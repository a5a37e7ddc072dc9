import fc from "fast-check";
import { planCost, planVisits, type VisitItem, type Workshop } from "./plan-visits";

/**
 * Enumerates every plan: the fewest visits, and among those the least interval lost. Independent of the planner; states already
 * tried are skipped, so that every random case finishes.
 */
function bruteForce(items: readonly VisitItem[], { horizon, open }: Workshop) {
  interface Cost {
    visits: number;
    thrownAway: number;
  }
  const tried = new Map<string, Cost | undefined>();
  const better = (one: Cost, best: Cost | undefined) =>
    !best ||
    one.visits < best.visits ||
    (one.visits === best.visits && one.thrownAway < best.thrownAway - 1e-12);
  const go = (from: number, due: readonly number[]): Cost | undefined => {
    if (due.every((d) => d >= horizon)) return { visits: 0, thrownAway: 0 };
    const state = `${from} ${due}`;
    if (tried.has(state)) return tried.get(state);
    let best: Cost | undefined;
    const first = Math.min(...due);
    for (let day = from; day <= first && day < horizon; day++) {
      if (!open(day)) continue;
      for (let set = 1; set < 1 << items.length; set++) {
        let more = 0;
        let refused = false;
        const then = due.map((d, i) => {
          if (!(set & (1 << i))) return d;
          const { interval, window = 9999 } = items[i] as VisitItem;
          if (day < d - window) refused = true;
          more += Number.isFinite(interval) ? (d - day) / interval : 0;
          return day + interval;
        });
        if (refused) continue;
        const after = go(day + 1, then);
        const one = after && { visits: after.visits + 1, thrownAway: after.thrownAway + more };
        if (one && better(one, best)) best = one;
      }
    }
    tried.set(state, best);
    return best;
  };
  return go(
    0,
    items.map((item) => item.due),
  );
}

const workshop = (horizon: number, blocked: readonly number[] = []): Workshop => ({
  horizon,
  open: (day) => !blocked.includes(day),
});

describe("the fewest visits", () => {
  it("combine what is due together in one visit, and not what lasts", () => {
    const plan = planVisits(
      [
        { id: "oil", due: 20, interval: 60 },
        { id: "annual", due: 25, interval: 365 },
        { id: "magneto", due: 400, interval: 900 },
      ],
      workshop(60),
    );
    expect(plan.visits).toEqual([{ day: 20, items: ["oil", "annual"] }]);
    expect(plan.thrownAway).toBeCloseTo(5 / 365, 9);
    expect(plan).toMatchObject({ late: [], exact: true });
  });

  it("avoid weeks in which the workshop is closed, and report what becomes late", () => {
    const plan = planVisits([{ id: "annual", due: 12, interval: 365 }], workshop(30, [8, 9, 10, 11, 12]));
    expect(plan.visits).toEqual([{ day: 7, items: ["annual"] }]);
    const late = planVisits([{ id: "annual", due: 1, interval: 365 }], workshop(30, [0, 1, 2, 3]));
    expect(late.late).toEqual([{ item: "annual", due: 1, done: 4 }]);
    expect(late.visits).toEqual([{ day: 4, items: ["annual"] }]);
    const overdue = planVisits([{ id: "annual", due: -3, interval: 365 }], workshop(30));
    expect(overdue.late).toEqual([{ item: "annual", due: -3, done: 0 }]);
  });

  it("do not waste life: work is left for a later visit if that costs no visit", () => {
    // Doing both on day 10 would waste half of the second interval; it fits into the visit needed on day 40.
    const plan = planVisits(
      [
        { id: "short", due: 10, interval: 30 },
        { id: "long", due: 45, interval: 70 },
      ],
      workshop(50),
    );
    expect(plan.visits).toEqual([
      { day: 10, items: ["short"] },
      { day: 40, items: ["short", "long"] },
    ]);
  });

  it("agree with every possible plan for small cases", () => {
    let compared = 0;
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ due: fc.integer({ min: 0, max: 16 }), interval: fc.integer({ min: 4, max: 20 }) }),
          {
            minLength: 1,
            maxLength: 3,
          },
        ),
        fc.uniqueArray(fc.integer({ min: 0, max: 17 }), { maxLength: 6 }),
        (raw, blocked) => {
          const items = raw.map((item, i) => ({ id: `${i}`, ...item }));
          const shop = workshop(18, blocked);
          const best = bruteForce(items, shop);
          const plan = planVisits(items, shop);
          if (!best) {
            // No plan keeps everything in date: late items are reported.
            expect(
              planCost(
                items,
                shop,
                plan.visits.map(({ day }) => day),
              ).late.length,
            ).toBeGreaterThan(0);
            return;
          }
          compared++;
          expect(plan.exact).toBe(true);
          expect({ visits: plan.visits.length, late: plan.late }).toEqual({ visits: best.visits, late: [] });
          expect(plan.thrownAway).toBeCloseTo(best.thrownAway, 9);
        },
      ),
      { numRuns: 120 },
    );
    expect(compared).toBeGreaterThan(50);
  });

  it("do work only when it is accepted: an earlier visit can save a later one", () => {
    // Done on its last day, "a" could not join the visit on day 14.
    const items: VisitItem[] = [
      { id: "a", due: 8, interval: 8, window: 1 },
      { id: "b", due: 14, interval: 90, window: 0 },
    ];
    const plan = planVisits(items, workshop(20));
    expect(plan).toMatchObject({ exact: true, late: [] });
    expect(plan.visits.map(({ day }) => day)).toEqual([7, 14]);
    expect(plan.visits[1]?.items).toEqual(["a", "b"]);
  });

  it("agree with every possible plan where work is not accepted early", () => {
    let compared = 0;
    const item = fc.record({
      due: fc.integer({ min: 0, max: 12 }),
      interval: fc.integer({ min: 4, max: 16 }),
      window: fc.option(fc.integer({ min: 0, max: 6 }), { nil: undefined }),
    });
    fc.assert(
      fc.property(
        fc.array(item, { minLength: 1, maxLength: 3 }),
        fc.uniqueArray(fc.integer({ min: 0, max: 13 }), { maxLength: 4 }),
        (raw, blocked) => {
          const items = raw.map(({ window, ...one }, i) => ({
            id: `${i}`,
            ...one,
            ...(window !== undefined && { window }),
          }));
          const shop = workshop(14, blocked);
          const best = bruteForce(items, shop);
          const plan = planVisits(items, shop);
          const days = plan.visits.map(({ day }) => day);
          expect(days).toEqual([...days].sort((a, b) => a - b));
          if (!best || !plan.exact) return;
          compared++;
          expect({ visits: plan.visits.length, late: plan.late }).toEqual({ visits: best.visits, late: [] });
          expect(plan.thrownAway).toBeCloseTo(best.thrownAway, 9);
        },
      ),
      { numRuns: 120 },
    );
    expect(compared).toBeGreaterThan(50);
  });

  it("keep sixty recurring items in date for two years, and the stated cost equals that of the days", () => {
    const random = fc.sample(
      fc.record({ due: fc.integer({ min: 0, max: 500 }), interval: fc.integer({ min: 45, max: 730 }) }),
      { numRuns: 60, seed: 7 },
    );
    const items = random.map((item, i) => ({ id: `${i}`, ...item }));
    const shop: Workshop = { horizon: 730, open: (day) => day % 7 < 5 };
    const plan = planVisits(items, shop);
    const cost = planCost(
      items,
      shop,
      plan.visits.map(({ day }) => day),
    );
    expect(cost.late).toEqual([]);
    expect(cost.closed).toEqual([]);
    expect(cost.thrownAway).toBeCloseTo(plan.thrownAway, 9);
  });
});

describe("a plan changed by hand", () => {
  const items = [
    { id: "oil", due: 20, interval: 60 },
    { id: "annual", due: 25, interval: 365 },
  ];

  it("reports what a later visit makes overdue, and what an earlier one wastes", () => {
    const shop = workshop(60);
    expect(planCost(items, shop, [27]).late).toEqual([
      { item: "oil", due: 20, done: 27 },
      { item: "annual", due: 25, done: 27 },
    ]);
    expect(planCost(items, shop, [13]).thrownAway).toBeCloseTo(7 / 60 + 12 / 365, 9);
    expect(planCost(items, workshop(60, [13]), [13]).closed).toEqual([13]);
  });

  it("reports work that is never done", () => {
    expect(planCost(items, workshop(60), []).late).toEqual([
      { item: "oil", due: 20 },
      { item: "annual", due: 25 },
    ]);
  });
});
