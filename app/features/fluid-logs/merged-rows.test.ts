import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { mergedRows } from "./use-logs";

const row = (more: Partial<FluidRow> = {}): FluidRow => ({
  registration: "QX-TAR",
  fluid: "oil",
  entry: "added",
  part: "left",
  amount: 1,
  unit: "US qt",
  at: "2026-05-01T10:00:00.000Z",
  ...more,
});

test("an entry of this device that the server has is shown once", () =>
  expect(mergedRows([row()], [row()])).toEqual([row()]));

test.each<[string, Partial<FluidRow>]>([
  ["another engine", { part: "right" }],
  ["another time", { at: "2026-05-01T10:00:01.000Z" }],
  ["another amount", { amount: 1.5 }],
  ["a level instead of an addition", { entry: "level" }],
])("%s is another entry", (_, more) => expect(mergedRows([row()], [row(more)])).toEqual([row(), row(more)]));

test("without an answer of the server there is what this device has", () =>
  expect(mergedRows([], [row()])).toEqual([row()]));
