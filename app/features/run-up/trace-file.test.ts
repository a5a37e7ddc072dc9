import type { TraceColumn, TraceReading } from "@cravix/contract/trace";
import { shownFile, type TraceFile, type TraceFileStep, traceFile } from "./trace-file";

const column = (index: number, more: Partial<TraceColumn> = {}): TraceColumn => ({
  index,
  header: `c${index}`,
  ...more,
});
const reading = (columns: TraceColumn[]) => ({ columns }) as unknown as TraceReading;
const file = (name: string) => ({ name }) as File;
const after = (...steps: TraceFileStep[]): TraceFile => steps.reduce(traceFile, { name: "none" });

const columns = [column(0, { field: "rpm", unit: "rpm" }), column(1)];
const read: TraceFileStep = { type: "read", file: file("a.csv"), read: reading(columns) };
const picked: TraceFileStep = { type: "picked" };

test.each<[string, TraceFileStep[], TraceFile["name"], string | undefined]>([
  ["nothing chosen", [], "none", undefined],
  ["being read", [picked], "reading", undefined],
  ["read", [picked, read], "read", "a.csv"],
  ["another one being read: the first stays", [picked, read, picked], "reading", "a.csv"],
  [
    "the other one failed: the first stays",
    [read, picked, { type: "failed", problem: "x" }],
    "failed",
    "a.csv",
  ],
  ["the first one failed", [picked, { type: "failed", problem: "x" }], "failed", undefined],
  ["a column assigned before there is a file", [{ type: "editing", column: 1 }], "none", undefined],
  [
    "the other one replaces it",
    [read, picked, { type: "read", file: file("b.csv"), read: reading([]) }],
    "read",
    "b.csv",
  ],
])("%s", (_, steps, name, shown) => {
  const state = after(...steps);
  expect([state.name, shownFile(state)?.file.name]).toEqual([name, shown]);
});

test("a channel assigned to a column leaves the one it had, and its unit is not confirmed", () => {
  const state = after(read, { type: "assigned", column: 1, change: { field: "rpm", unit: "rpm" } });
  expect(shownFile(state)?.columns).toEqual([
    column(0),
    column(1, { field: "rpm", unit: "rpm", assumed: true }),
  ]);
});

test("a unit chosen by hand is confirmed, also after another file failed", () => {
  const state = after(
    read,
    { type: "failed", problem: "x" },
    { type: "assigned", column: 0, change: { unit: "Hz" } },
  );
  expect(shownFile(state)?.columns[0]).toEqual(column(0, { field: "rpm", unit: "Hz", told: true }));
  expect(state.name).toBe("failed");
});

test("one column is assigned at a time, and a new file begins with none", () => {
  const editing = after(read, { type: "editing", column: 1 });
  expect(shownFile(editing)?.editing).toBe(1);
  expect(shownFile(traceFile(editing, { type: "editing", column: undefined }))).not.toHaveProperty("editing");
  expect(shownFile(traceFile(editing, read))).not.toHaveProperty("editing");
});
