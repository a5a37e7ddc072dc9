import fc from "fast-check";
import { planVisits } from "./plan-visits";
import { handPlanCostText, manualPlanCost, planFaults, workshopFrom } from "./workshop-plan";

/** A Monday. */
const MONDAY = "2026-06-01";
const ITEMS = [
  { id: "oil", due: 20, interval: 60 },
  { id: "annual", due: 25, interval: 365 },
];
const words = (days: number[]) => {
  const shop = workshopFrom(MONDAY, 60, []);
  return handPlanCostText(
    manualPlanCost(ITEMS, shop, days, planVisits(ITEMS, shop)),
    (item) => ({ oil: "Oil change", annual: "Annual" })[item] ?? item,
    MONDAY,
  );
};

test("the workshop works on weekdays, and not on closed days, both ends included", () => {
  const { open } = workshopFrom(MONDAY, 30, [{ from: "2026-06-09", to: "2026-06-10" }]);
  expect([0, 4, 5, 6, 7, 8, 9, 10].map(open)).toEqual([true, true, false, false, true, false, false, true]);
});

test("changes by hand are reported by cost: overdue first, then visits, then life", () => {
  // Day 19 is a Saturday; the best day for both is the Friday before Sunday, day 20.
  const best = planVisits(ITEMS, workshopFrom(MONDAY, 60, []));
  expect(best.visits).toEqual([{ day: 18, items: ["oil", "annual"] }]);
  expect(words([18])).toEqual([{ bad: false, words: "No extra cost." }]);
  expect(words([22])).toEqual([{ bad: true, words: "Oil change will be 2 days overdue at the visit." }]);
  // By hand: 10/60 + 15/365 against 2/60 + 7/365.
  expect(words([10])[0]?.words).toBe("16 % more of an interval is lost by doing work early.");
  expect(words([18, 24]).map((one) => one.words)).toEqual([
    "1 more visit than needed.",
    "2 % of an interval is saved.",
  ]);
  expect(words([])[0]).toEqual({
    bad: true,
    words: "Oil change is due on 2026-06-21, and no visit is planned for it.",
  });
  expect(words([13]).some((one) => one.bad && one.words.includes("closed on 2026-06-14"))).toBe(true);
});

test("no manual plan that keeps everything in date has fewer visits than the best, nor as many with less waste", () => {
  const items = fc.array(
    fc.record({ due: fc.integer({ min: 5, max: 50 }), interval: fc.integer({ min: 20, max: 200 }) }),
    { minLength: 1, maxLength: 4 },
  );
  const days = fc.uniqueArray(fc.integer({ min: 0, max: 59 }), { maxLength: 5 });
  fc.assert(
    fc.property(items, days, (raw, hand) => {
      const all = raw.map((one, i) => ({ id: String(i), ...one }));
      const shop = workshopFrom(MONDAY, 60, []);
      const best = planVisits(all, shop);
      const { cost, moreVisits, moreThrownAway } = manualPlanCost(all, shop, hand, best);
      if (best.late.length > 0 || cost.late.length > 0 || cost.closed.length > 0) return;
      expect(moreVisits).toBeGreaterThanOrEqual(0);
      if (moreVisits === 0) expect(moreThrownAway).toBeGreaterThanOrEqual(-1e-9);
    }),
  );
});

test("invalid days, and an end before its start, are reported", () => {
  const faults = planFaults({
    closed: [
      { from: "2026-02-29", to: "2026-03-01" },
      { from: "2026-03-02", to: "2026-02-28" },
      { from: "2026-03-02", to: "soon" },
    ],
    visits: [{ registration: "QX-TAR", date: "2026-13-01", items: [] }],
  });
  expect(faults.map(({ path }) => path)).toEqual([
    "closed[0].from",
    "closed[1].to",
    "closed[2].to",
    "visits[0].date",
  ]);
});
