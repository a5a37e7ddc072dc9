import { judgeAltimeterDrift } from "./judge-altimeter-drift";
import {
  deviationAt,
  headingDifference,
  judgeHeading,
  judgeReceiverAge,
  judgeVorReceivers,
  judgeVsi,
  readDeviationCard,
} from "./judge-instruments";

describe("the compass card", () => {
  const card = readDeviationCard("0:1, 90:-2, 180:0, 270:3");

  it("is read between its points, round the whole rose", () => {
    expect(card && deviationAt(card, 90)).toBe(-2);
    expect(card && deviationAt(card, 45)).toBeCloseTo(-0.5, 9);
    expect(card && deviationAt(card, 315)).toBeCloseTo(2, 9);
    expect(card && deviationAt(card, 360)).toBe(1);
  });

  it("that cannot be read is named, and none is none", () => {
    expect(() => readDeviationCard("0:1, north")).toThrow("north");
    expect(readDeviationCard("")).toBeUndefined();
  });
});

describe("the heading indicator (common practice: within 5°)", () => {
  it("is held against the compass by its card", () => {
    const card = readDeviationCard("0:0, 60:-3, 120:0");
    expect(judgeHeading(63, 60, card)).toMatchObject({
      grade: "within limits",
      sentence: expect.stringContaining("63° corrected by its card"),
    });
    // Without the card the same readings would differ by three degrees.
    expect(judgeHeading(63, 60, undefined).sentence).toContain("3° more than");
    expect(judgeHeading(69, 60, card).grade).toBe("ask");
  });

  it("knows that 359 and 2 are three degrees apart", () => {
    expect(headingDifference(2, 359)).toBe(3);
    expect(headingDifference(359, 2)).toBe(-3);
    expect(judgeHeading(2, 359, undefined).grade).toBe("within limits");
  });

  it("rejects what is on no rose", () => {
    expect(() => judgeHeading(400, 10, undefined)).toThrow("0 to 360");
  });
});

describe("the climb indicator (common practice: within 100 ft/min, and that is its zero)", () => {
  it.each([
    [0, "within limits", "Reads zero."],
    [60, "note", "60 up at rest: use that as zero today."],
    [-100, "note", "100 down"],
    [140, "ask", "too far from zero"],
  ])("%d ft/min is %s", (reading, grade, words) => {
    expect(judgeVsi(reading)).toMatchObject({ grade, sentence: expect.stringContaining(words) });
  });
});

describe("navigation receivers (14 CFR 91.171, from memory: 4°, 30 days)", () => {
  it("each within 4°, and within 4° of each other", () => {
    expect(judgeVorReceivers({ one: 4, two: 1 }).grade).toBe("within limits");
    expect(judgeVorReceivers({ one: 5 }).grade).toBe("ask");
    expect(judgeVorReceivers({ one: 3, two: -3 }).sentence).toContain("6° difference");
    expect(() => judgeVorReceivers({ one: 200 })).toThrow("−180 to 180");
  });

  it("are good for thirty days", () => {
    expect(judgeReceiverAge("2026-04-01T10:00:00.000Z", "2026-05-01T09:00:00.000Z")).toBeUndefined();
    expect(judgeReceiverAge("2026-03-30T10:00:00.000Z", "2026-05-01T10:00:00.000Z")?.sentence).toContain(
      "32 days ago",
    );
    expect(judgeReceiverAge(undefined, "2026-05-01T10:00:00.000Z")?.sentence).toContain(
      "No VOR check on record",
    );
  });
});

describe("an altimeter over the months", () => {
  const errors = (perMonth: number, months: number, n = 9) =>
    Array.from({ length: n }, (_, i) => ({
      at: new Date(Date.UTC(2026, 0, 1) + (i * months * 30.4 * 86_400_000) / (n - 1)).toISOString(),
      errorFt: Math.round(5 + perMonth * months * (i / (n - 1)) + ((i * 7) % 5) - 2),
    }));

  it("that creeps is shown, with when it will be out", () => {
    const creeping = judgeAltimeterDrift(errors(10, 5), 75);
    expect(creeping?.grade).toBe("watch");
    expect(creeping?.sentence).toMatch(
      /10 ft higher every month: outside its 75 ft tolerance in about 2 months/,
    );
  });

  it("that only scatters, or was read too seldom, says nothing", () => {
    expect(judgeAltimeterDrift(errors(0, 5), 75)).toBeUndefined();
    expect(judgeAltimeterDrift(errors(10, 5, 5), 75)).toBeUndefined();
    expect(judgeAltimeterDrift(errors(30, 0.5), 75)).toBeUndefined();
  });
});
