import fc from "fast-check";
import type { OpenDiscrepancy } from "../checklist/list/open-discrepancy";
import { FINDING_GRADES, GRADES } from "../judgement/judgement";
import { aircraftStatus } from "./aircraft-status";

const open = (grade: OpenDiscrepancy["grade"], more: Partial<OpenDiscrepancy> = {}): OpenDiscrepancy => ({
  id: `d-${grade}-${more.openedAt ?? ""}`,
  stationId: "nose",
  text: "Nick in the propeller.",
  grade,
  openedAt: "2026-05-01T09:00:00.000Z",
  openedBy: "Maren Holtby",
  ...more,
});

// No published source judges an aircraft before its preflight; that the worst open defect decides is common practice of technical
// logs.
describe("the status of an aircraft", () => {
  test("is without known problems if nothing is open and the oil was not low", () => {
    expect(aircraftStatus({ open: [], oil: [{ qt: 6, minimumQt: 6, at: "2026-05-01" }] })).toEqual({
      verdict: "go",
      grade: "within limits",
      reasons: [],
    });
  });

  test("is set by its worst discrepancy, whatever the others and their order", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...FINDING_GRADES), { maxLength: 12 }), (grades) => {
        const standing = aircraftStatus({ open: grades.map((grade) => open(grade)) });
        const ranks = grades.map((grade) => GRADES.indexOf(grade));
        expect(GRADES.indexOf(standing.grade)).toBe(Math.max(0, ...ranks));
        expect(standing.verdict === "stop").toBe(grades.includes("stop"));
        expect(standing.reasons.map(({ grade }) => GRADES.indexOf(grade))).toEqual(
          [...ranks].sort((a, b) => b - a),
        );
      }),
    );
  });

  test("lists the oldest of one grade first, with its measurement", () => {
    const { reasons } = aircraftStatus({
      open: [
        open("watch", { openedAt: "2026-05-03T09:00:00.000Z", text: "New" }),
        open("watch", {
          openedAt: "2026-05-02T09:00:00.000Z",
          text: "Seep at the tip drain.",
          measure: "2 drops",
        }),
      ],
    });
    expect(reasons.map(({ text }) => text)).toEqual(["Seep at the tip drain: 2 drops", "New"]);
  });

  test("notes oil below the minimum, unless some was added since or there is no minimum on file", () => {
    const low = { qt: 5.8, minimumQt: 6, at: "2026-05-01" };
    const { verdict, reasons } = aircraftStatus({ open: [], oil: [{ ...low, engine: "left" }] });
    expect(verdict).toBe("go with notes");
    expect(reasons[0]?.text).toBe(
      "Oil, left engine: 5.8 qt at the last reading, minimum 6.0 qt. Take oil with you.",
    );
    expect(aircraftStatus({ open: [], oil: [{ ...low, putInQt: 1 }] }).reasons).toEqual([]);
    expect(aircraftStatus({ open: [], oil: [{ qt: 5.8, at: "2026-05-01" }] }).reasons).toEqual([]);
  });
});
