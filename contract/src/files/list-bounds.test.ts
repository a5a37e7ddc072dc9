import type { AircraftRecord } from "@cravix/core/airworthiness/aircraft-record";
import { airworthinessSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { DueItem } from "@cravix/core/airworthiness/due/due-item";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import { airworthinessFiles, qxTar, tarrow4 } from "@cravix/demo";
import { readList } from "./list-schema";

const NOW = new Date("2026-05-01T12:00:00.000Z");
const record = airworthinessFiles(NOW).find(
  (file) => file.registration === "QX-TAR",
) as unknown as AircraftRecord;

/** The fullest record that admission lets through, with meters replaced at these readings. */
function fullest(oldReading = 10, newReading = 0) {
  const changes = Array.from({ length: 60 }, (_, i) => ({
    at: new Date(Date.UTC(2021, 0, 1 + i)).toISOString(),
    oldReading,
    newReading,
  }));
  const left = Array.from(
    { length: 300 },
    (_, i): DueItem => ({
      id: `leak ${i}`,
      name: "Leak check",
      kind: "condition",
      limits: [{ by: "reading", meter: i % 2 ? "hours" : "bananas", at: 4300 }],
      once: true,
      miss: "stop",
      source: { kind: "rule", text: "release", example: true },
    }),
  );
  const meters = record.meters.map((meter) => ({ ...meter, changes }));
  return airworthinessSnapshot(
    { ...record, meters },
    { left, totals: { hours: 4230.1, landings: 12_000_000 } },
  );
}

test("the fullest checklist that can be composed is also accepted", () => {
  const openDiscrepancies = Array.from(
    { length: 500 },
    (_, i): OpenDiscrepancy => ({
      id: `0198a000-0000-7000-8000-${String(i).padStart(12, "0")}`,
      stationId: "tail",
      text: "x".repeat(2000),
      grade: "note",
      openedAt: NOW.toISOString(),
      openedBy: "Inês Valadares",
      measure: "m".repeat(200),
      deferral: {
        basis: "b".repeat(2000),
        rules: "example",
        for: ["day"],
        placard: "p".repeat(120),
        deactivated: "d".repeat(300),
        operations: "o".repeat(400),
      },
    }),
  );
  const list = composeList({
    type: tarrow4,
    aircraft: qxTar,
    conditions: ["night"],
    openDiscrepancies,
    papers: fullest(),
  });
  expect(readList(JSON.parse(JSON.stringify(list)))).toEqual({ list: JSON.parse(JSON.stringify(list)) });
});

test.each([
  [1_000_000, 0],
  [0, 1_000_000],
])("meters replaced sixty times at %d, with new ones at %d, are accepted too", (oldReading, newReading) => {
  const papers = fullest(oldReading, newReading);
  const far = papers.meters.map(({ offset = 0 }) => Math.abs(offset));
  expect(Math.max(...far)).toBeGreaterThan(50_000_000);
  // An item that fell due before the count began.
  const [first, ...dues] = papers.dues;
  if (!first) throw new Error("the demo has due items");
  const point = { limit: 0, meter: "hours", at: -1_500_000, tolerances: [] };
  const overdue = { ...first, due: { ...first.due, points: [point] } };
  const list = composeList({
    type: tarrow4,
    aircraft: qxTar,
    conditions: [],
    openDiscrepancies: [],
    papers: { ...papers, dues: [overdue as typeof first, ...dues] },
  });
  expect(readList(JSON.parse(JSON.stringify(list)))).toEqual({ list: JSON.parse(JSON.stringify(list)) });
});
