import { HANDS, promptsFor } from "../../testing/coached-unseen-cases";
import { drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { unseenCase } from "../../testing/unseen-cases";
import { readRunUp, readWays, traceOf } from "../index";

const FOUR = CASE_ENGINES[0] as CaseEngine;
const unseenCases = Array.from({ length: 24 }, (_, i) => unseenCase(i % 2 ? "none" : "plug", 1700 + i));
const read = unseenCases.map(({ lines, engine }) => readWays(traceOf(lines), engine.profile));

describe("interpretations of one trace", () => {
  it("come most likely first, each with other steps, and their weights add up to one", () => {
    for (const ways of read) {
      expect(ways.length).toBeLessThanOrEqual(4);
      expect(ways.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
      expect(ways.map(({ weight }) => weight)).toEqual(
        [...ways].map(({ weight }) => weight).sort((a, b) => b - a),
      );
      const rows = ways.map(({ reading }) =>
        reading.steps.map(({ step, at }) => `${step} ${at.toFixed(1)}`).join(),
      );
      expect(new Set(rows).size).toBe(rows.length);
    }
  });

  it("begin with the single reading", () => {
    unseenCases.forEach(({ lines, engine }, i) => {
      expect(readRunUp(traceOf(lines), engine.profile)).toEqual(read[i]?.[0]?.reading);
    });
  });

  it("are several for some unseen traces, and hardly ever for a clear one", () => {
    expect(read.filter((ways) => ways.length > 1).length).toBeGreaterThanOrEqual(4);
    const plain = readWays(
      drawnTrace(
        [
          { seconds: 25, rpm: 1000, egt: -170 },
          { seconds: 10, rpm: 1800 },
          { seconds: 8, rpm: 1700, egt: 70 },
          { seconds: 10, rpm: 1800 },
          { seconds: 8, rpm: 1725, egt: 60 },
          { seconds: 10, rpm: 1800 },
          { seconds: 8, rpm: 680, egt: -300 },
        ],
        { every: 1 },
      ),
      FOUR.profile,
    );
    expect(plain[0]?.weight).toBeGreaterThan(0.8);
    expect(plain[0]?.reading.notes.some(({ kind }) => kind === "read otherwise")).toBe(false);
  });

  it("are described where a second one matters, with its sides, and never twice the same", () => {
    for (const ways of read) {
      const [first, second] = ways;
      const note = first?.reading.notes.find(({ kind }) => kind === "read otherwise");
      if (note) {
        expect(second?.weight).toBeGreaterThanOrEqual(0.2);
        expect(note.sentence).toMatch(/about \d+ of \d+\): .*(first|second) side/);
      } else if (first && second && second.weight >= 0.2)
        for (const side of ["right", "left"] as const)
          expect(
            Math.abs((first.reading[side]?.drop ?? 0) - (second.reading[side]?.drop ?? 0)),
          ).toBeLessThanOrEqual(15);
    }
  });

  it("exist with prompts too: a prompt is evidence of what was done, not proof", () => {
    const coached = unseenCases.map((one, i) => {
      const hand = HANDS[i % HANDS.length] as (typeof HANDS)[number];
      return readWays(traceOf(one.lines), one.engine.profile, promptsFor(one, hand, 1700 + i));
    });
    for (const ways of coached) {
      expect(ways.length).toBeLessThanOrEqual(4);
      expect(ways.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
    }
    expect(coached.filter((ways) => ways.length > 1).length).toBeGreaterThanOrEqual(2);
  });
});
