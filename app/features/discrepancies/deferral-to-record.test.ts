import { deferralOf } from "./deferral-to-record";

type Outcome = Parameters<typeof deferralOf>[0];

const SOURCE = { kind: "rule", text: "Sample rule", example: true } as const;

const outcome = (until?: string): Outcome => ({
  result: "deferrable",
  why: "Not required by day.",
  trail: [
    {
      ask: "Is it on the equipment list?",
      answer: "yes",
      question: "listed",
      from: "data",
      source: SOURCE,
      because: "Listed as optional.",
    },
    {
      ask: "Does the flight need it?",
      answer: "unknown",
      question: "needed",
      from: "told",
      source: SOURCE,
    },
  ],
  ...(until && { until }),
});
const told = { rules: "rules-a", flight: ["day" as const] };

describe("a deferral as it is recorded", () => {
  it.each([
    ["the person's earlier day wins", "2026-03-10", "2026-03-04", "2026-03-04"],
    ["the rule's day cannot be exceeded", "2026-03-10", "2026-04-01", "2026-03-10"],
    ["only the rule sets a day", "2026-03-10", undefined, "2026-03-10"],
    ["only the person sets a day", undefined, "2026-04-01", "2026-04-01"],
    ["no day at all", undefined, undefined, undefined],
  ])("last day: %s", (_, rule, person, last) => {
    expect(deferralOf(outcome(rule), { ...told, ...(person && { until: person }) }).until).toBe(last);
  });

  it("quotes each question with its answer and reason, within the record's length", () => {
    expect(deferralOf(outcome(), told)).toEqual({
      basis:
        "Not required by day. Is it on the equipment list? Yes. Listed as optional. Does the flight need it? I don't know.",
      rules: "rules-a",
      for: ["day"],
    });
    const long = { ...outcome(), why: "x".repeat(3000) };
    expect(deferralOf(long, told).basis).toHaveLength(2000);
  });

  it("keeps how many are broken, which equipment, and what has to be done", () => {
    expect(
      deferralOf(
        {
          ...outcome(),
          equipment: { id: "beacon", name: "Beacon", what: "beacon", items: [], requiredFor: [] },
          placard: "Beacon inoperative",
          deactivate: "Pull the breaker",
          operations: "By day only",
        },
        { ...told, broken: 2 },
      ),
    ).toMatchObject({
      equipment: "beacon",
      broken: 2,
      placard: "Beacon inoperative",
      deactivated: "Pull the breaker",
      operations: "By day only",
    });
  });
});
