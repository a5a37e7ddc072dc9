import fc from "fast-check";
import { CASE_ENGINES, type CaseEngine } from "../testing/run-up-cases";
import { type DiagnosisContext, diagnose, type Observation, type OpenQuestion, rankQuestions } from "./index";

/** The most decisive question, worked by hand: expected reduction of entropy per Lindley (1956), with the library's priors. */
const { shape } = (CASE_ENGINES as readonly CaseEngine[])[0] as CaseEngine;
const context: DiagnosisContext = {
  cylinders: shape.cylinders,
  fuelSystem: shape.fuelSystem,
  propeller: shape.propeller,
  suction: shape.vacuumPump,
  unprompted: true,
};
const seen = (feature: Observation["feature"], state: string, side?: "right" | "left"): Observation =>
  ({ feature, state, words: "", ...(side && { side }) }) as Observation;

const ORDER: OpenQuestion = {
  id: "order",
  words: "Which side did you check first?",
  answers: [
    { words: "Right", told: [], sides: { first: "right" } },
    { words: "Left", told: [], sides: { first: "left" } },
    { words: "The same side each time", told: [], sides: { same: true } },
  ],
};
const HEAT: OpenQuestion = {
  id: "heat",
  words: "The trace does not show carburettor heat. Did you check it?",
  answers: [
    { words: "Checked: no change", told: [seen("heat", "nothing")] },
    { words: "It changed, but not in the trace", told: [] },
    { words: "Not checked", told: [] },
  ],
};
const EMPTY: OpenQuestion = {
  id: "propeller",
  words: "",
  answers: [
    { words: "a", told: [] },
    { words: "b", told: [] },
  ],
};
const ranked = (...observations: Observation[]) => diagnose(observations, context).ranked;
const first = (...observations: Observation[]) =>
  rankQuestions([HEAT, ORDER], ranked(...observations), context)[0]?.question.id;

test("where a plug on one of two sides is most likely, asking which side it was is most useful", () => {
  const plug = [
    seen("drop", "over", "right"),
    seen("exhaust", "one colder", "right"),
    seen("feel", "rough", "right"),
  ];
  expect(first(...plug)).toBe("order");
  const [order] = rankQuestions([ORDER], ranked(...plug), context);
  // Almost certainly a fault of one side: nearly one full bit.
  expect(order?.bits).toBeGreaterThan(0.9);
  expect(order?.bits).toBeLessThanOrEqual(1);
});

test("without findings, a missing heat check matters more than which side came first", () => {
  expect(first(seen("drop", "usual", "right"), seen("drop", "usual", "left"), seen("feel", "smooth"))).toBe(
    "heat",
  );
});

test("an answer without content carries no information, and equal questions keep their order", () => {
  const both = rankQuestions([EMPTY, { ...EMPTY, id: "heat" }], ranked(), context);
  expect(both.map(({ bits }) => Math.abs(bits) < 1e-9)).toEqual([true, true]);
  expect(both.map(({ question }) => question.id)).toEqual(["propeller", "heat"]);
});

test("no question is expected to reduce certainty, whatever was seen, and the order of asking does not matter", () => {
  const states = [
    seen("drop", "none", "right"),
    seen("drop", "over", "left"),
    seen("drop", "usual", "right"),
    seen("exhaust", "no change", "right"),
    seen("heat", "more after"),
    seen("idle", "low"),
    seen("volts", "low"),
    seen("idleExhaust", "alike"),
  ];
  fc.assert(
    fc.property(
      fc.subarray(states),
      fc.shuffledSubarray([HEAT, ORDER, EMPTY], { minLength: 3 }),
      (of, asked) => {
        const now = ranked(...of);
        const found = rankQuestions(asked, now, context);
        for (const { bits } of found) expect(bits).toBeGreaterThanOrEqual(0);
        expect(found.slice(0, 2).map(({ question }) => question.id)).toEqual(
          rankQuestions([HEAT, ORDER, EMPTY], now, context)
            .slice(0, 2)
            .map(({ question }) => question.id),
        );
      },
    ),
  );
});
