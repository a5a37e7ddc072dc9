import type { Source } from "../../judgement/judgement";
import { addDays } from "../calendar/local-date";
import type { DueItem } from "../due/due-item";
import type { LimitLeft } from "../due/judge-due";
import { usualOf, visitItem, whenDue } from "./when-due";

const TODAY = "2026-07-20";
/** A year of flying, mostly little and now and then a lot: what the next weeks bring is uncertain. */
const DAYS = Array.from({ length: 52 }, (_, week) => ({
  date: addDays("2025-07-21", 7 * week),
  uses: { hours: week % 4 === 0 ? 6 : 0.5 },
}));
const usual = usualOf(DAYS, [{ id: "hours" }], TODAY);
const byDate = (date: string): LimitLeft => ({
  point: { limit: 0, date, tolerances: [] },
  state: "in date",
  left: 20,
  leftAfter: 20,
  unit: "days",
});
const byHours = (left: number): LimitLeft => ({
  point: { limit: 1, meter: "hours", at: 1000, tolerances: [] },
  state: "in date",
  left,
  leftAfter: left,
  unit: "h",
});
const source: Source = { kind: "rule", text: "example", example: true };

test("whichever comes first: hours that may be used up before the date govern", () => {
  const alone = whenDue([byHours(6)], usual, TODAY);
  expect(alone?.from).toBeDefined();
  const date = addDays(alone?.from as string, 1);
  expect((alone?.middle ?? "9999") > date).toBe(true);
  const both = whenDue([byDate(date), byHours(6)], usual, TODAY);
  expect(both).toMatchObject({ from: alone?.from, middle: date, to: date, certain: false });
  expect(both?.limit?.unit).toBe("h");
  // A date before the hours can be used up governs.
  const first = whenDue([byHours(500), byDate("2026-08-18")], usual, TODAY);
  expect(first).toMatchObject({ from: "2026-08-18", to: "2026-08-18", certain: true });
});

test("visits take the earliest day, work without a stated duration too, and papers not", () => {
  const item: DueItem = {
    id: "oil",
    name: "Oil",
    kind: "inspection",
    limits: [
      { by: "months", months: 4, to: "same day" },
      { by: "meter", meter: "hours", every: 50 },
    ],
    miss: "stop",
    source,
    notBeforeDays: 30,
  };
  const limits = [byDate("2027-01-01"), byHours(6)];
  const planned = visitItem(item, limits, usual, TODAY);
  expect(planned).toMatchObject({ id: "oil", window: 30 });
  expect(addDays(TODAY, planned?.due ?? 0)).toBe(whenDue(limits, usual, TODAY)?.from);
  expect(visitItem({ ...item, kind: "document" }, limits, usual, TODAY)).toBeUndefined();
  expect(visitItem({ ...item, doneBy: "pilot" }, limits, usual, TODAY)).toBeUndefined();
});
