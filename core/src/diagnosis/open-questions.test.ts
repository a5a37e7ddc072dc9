import { type SimulatedFault, simulateRunUp, usualPlan } from "../engine-model/index";
import {
  type MagnetoSideOrder,
  type Mark,
  orderByAnswer,
  type RunUpReading,
  readRunUp,
  traceOf,
} from "../run-up/index";
import { CASE_ENGINES, runUpCase } from "../testing/run-up-cases";
import {
  diagnose,
  type Hypothesis,
  type Observation,
  type OpenQuestion,
  observe,
  openQuestions,
} from "./index";

type CaseEngine = (typeof CASE_ENGINES)[number];
const engineAt = (at: number) => CASE_ENGINES[at] as CaseEngine;
const limitsOf = ({ maxDropRpm }: CaseEngine) => ({
  maxDropRpm,
  maxDifferenceRpm: 50,
  resolutionRpm: 10,
});

/** A run-up as read from a file: no prompts. `skip` leaves steps out; `prompted` keeps the coach's. */
function read(
  fault: SimulatedFault,
  engine: CaseEngine,
  {
    skip = [],
    prompted = false,
    sides,
  }: { skip?: string[]; prompted?: boolean; sides?: MagnetoSideOrder } = {},
): RunUpReading {
  const options = { ...runUpCase("none", 2, engine).options, fault, severity: 0.6 };
  const plan = usualPlan(options);
  plan.steps = plan.steps.filter(({ step }) => !skip.includes(step));
  const { samples, told } = simulateRunUp(options, plan);
  const marks = told.map(({ step, at }): Mark => ({ step, t: at }));
  return readRunUp(traceOf(samples), engine.profile, prompted ? marks : undefined, sides);
}

const contextOf = ({ shape }: CaseEngine) => ({
  cylinders: shape.cylinders,
  fuelSystem: shape.fuelSystem,
  propeller: shape.propeller,
  suction: shape.vacuumPump,
});
const isA = (id: string, side?: string) => (hypothesis: Hypothesis) =>
  hypothesis.fault?.id === id && (side === undefined || hypothesis.side === side);

/**
 * Answers every question as the page does, by the start of each answer (default: the first); the trace is read again with the
 * answers about the sides.
 */
function answerAll(
  again: (sides?: MagnetoSideOrder) => RunUpReading,
  engine: CaseEngine,
  choose: Partial<Record<OpenQuestion["id"], string>>,
) {
  const asked = new Set<OpenQuestion["id"]>();
  const told: Observation[] = [];
  let sides: MagnetoSideOrder = {};
  for (;;) {
    const named = again(sides);
    const [question] = openQuestions(named, engine.profile, asked);
    if (!question) return { told, named, sides, asked: [...asked] };
    asked.add(question.id);
    const wanted = choose[question.id];
    const answer = question.answers.find(({ words }) => words.startsWith(wanted ?? ""));
    if (!answer) throw new Error(`"${question.words}" has no answer "${wanted}"`);
    told.push(...answer.told);
    sides = { ...sides, ...answer.sides };
  }
}

describe("a trace without prompts", () => {
  it("asks which side came first if everything is visible, and nothing for a prompted run-up", () => {
    const engine = engineAt(0);
    const asked = openQuestions(read({ kind: "none" }, engine), engine.profile, new Set());
    expect(asked.map(({ id }) => id)).toEqual(["order"]);
    expect(asked[0]?.answers.map(({ words }) => words)).toEqual(["Right", "Left", "The same side each time"]);
    expect(openQuestions(read({ kind: "none" }, engine), engine.profile, new Set(["order"]))).toEqual([]);
    const hot = read({ kind: "hot magneto", side: "left" }, engine, { prompted: true });
    expect(openQuestions(hot, engine.profile, new Set())).toEqual([]);
  });

  // Common practice: no drop at all is not good news. A trace showing one side only must not be called healthy.
  it.each([0, 1, 3])("never calls a magneto that is not grounded healthy (engine %i)", (at) => {
    const engine = engineAt(at);
    for (const side of ["right", "left"] as const) {
      const again = (sides?: MagnetoSideOrder) =>
        read({ kind: "hot magneto", side }, engine, { ...(sides && { sides }) });
      const reading = again();
      const before = diagnose(observe(reading, engine.profile, limitsOf(engine)), contextOf(engine)).ranked;
      expect(before[0]?.fault?.id).toMatch(/key not turned|hot magneto/);
      // The side opposite the ungrounded one shows no drop: the pilot says which one dropped, and that the other was checked.
      const { told, named, asked } = answerAll(again, engine, {
        "which side": side === "right" ? "Right" : "Left",
        "other side": "Checked",
      });
      expect(asked.slice(0, 2)).toEqual(["which side", "other side"]);
      expect(named[side]?.side).toBe(side);
      const rest = observe(named, engine.profile, limitsOf(engine)).filter((o) => o.feature !== "shown");
      const [best] = diagnose([...rest, ...told], contextOf(engine)).ranked;
      expect(best && isA("hot magneto", side)(best)).toBe(true);
      expect(best?.probability).toBeGreaterThan(0.6);
    }
  });

  it("assesses carburettor heat that was applied without effect, and ignores heat that was left out", () => {
    const engine = engineAt(0);
    const reading = read({ kind: "heat cable off" }, engine);
    expect(reading.heat).toBeUndefined();
    const observed = observe(reading, engine.profile, limitsOf(engine));
    const tried = answerAll(() => reading, engine, { heat: "Checked" });
    expect(tried.asked).toEqual(["order", "heat"]);
    expect(diagnose([...observed, ...tried.told], contextOf(engine)).ranked[0]?.fault?.id).toBe(
      "heat cable off",
    );
    expect(answerAll(() => reading, engine, { heat: "Not checked" }).told).toEqual([]);
    expect(answerAll(() => reading, engine, { heat: "It changed" }).told).toEqual([]);
    expect(diagnose(observed, contextOf(engine)).ranked[0]?.fault).toBeUndefined();
  });

  it("asks where neither side dropped, and does not call the engine healthy", () => {
    const engine = engineAt(0);
    const reading = read({ kind: "none" }, engine, { skip: ["right", "left", "both"] });
    const [question] = openQuestions(reading, engine.profile, new Set());
    expect(question?.id).toBe("any side");
    const observed = observe(reading, engine.profile, limitsOf(engine));
    const { told } = answerAll(() => reading, engine, { "any side": "Checked" });
    const { ranked, fits } = diagnose([...observed, ...told], contextOf(engine));
    expect(ranked[0]?.fault?.id).toBe("hot magneto");
    // Two faults at once are not in the library: the report must say that nothing explains it well.
    expect(fits).toBeLessThan(0.02);
    expect(answerAll(() => reading, engine, { "any side": "Not checked" }).told).toEqual([]);
    // It dropped and the reader missed it: nothing counts against the engine.
    const missed = answerAll(() => reading, engine, { "any side": "Both dropped" }).told;
    expect(diagnose([...observed, ...missed], contextOf(engine)).ranked[0]?.fault).toBeUndefined();
    // The engine stopped for a second between two samples: that magneto is dead.
    const { told: stopped, sides } = answerAll(() => reading, engine, {
      "any side": "The engine stopped on left",
    });
    expect(sides.first).toBe("left");
    const [dead] = diagnose([...observed, ...stopped], contextOf(engine)).ranked;
    expect(dead && isA("dead magneto", "left")(dead)).toBe(true);
    // One of the two did not drop: with the key on left, the right magneto kept firing.
    const one = answerAll(() => reading, engine, { "any side": "Only right" }).told;
    const [best] = diagnose([...observed, ...one], contextOf(engine)).ranked;
    expect(best && isA("hot magneto", "right")(best)).toBe(true);
    const flying = { ...reading, base: undefined } as unknown as RunUpReading;
    expect(openQuestions(flying, engine.profile, new Set())).toEqual([]);
  });

  it("asks about a propeller check that is not visible, if the engine has one", () => {
    const engine = engineAt(3);
    const reading = read({ kind: "none" }, engine, { skip: ["propeller"] });
    const asked = openQuestions(reading, engine.profile, new Set()).map(({ id }) => id);
    expect(asked).toContain("propeller");
    const { told } = answerAll(() => reading, engine, { propeller: "Cycled" });
    expect(told).toContainEqual(expect.objectContaining({ feature: "propeller", state: "nothing" }));
  });

  it("accepts the pilot's word for a drop missing from the trace: the engine has no fault", () => {
    const engine = engineAt(0);
    const again = (sides?: MagnetoSideOrder) =>
      read({ kind: "hot magneto", side: "left" }, engine, { ...(sides && { sides }) });
    const { told, named } = answerAll(again, engine, { "other side": "It dropped" });
    const rest = observe(named, engine.profile, limitsOf(engine)).filter((o) => o.feature !== "shown");
    expect(diagnose([...rest, ...told], contextOf(engine)).ranked[0]?.fault).toBeUndefined();
  });

  it("reads an engine that stops on one side from the few remaining lines", () => {
    const engine = engineAt(0);
    const options = {
      ...runUpCase("none", 2, engine).options,
      fault: { kind: "dead magneto", side: "left" },
    };
    const plan = {
      steps: (
        [
          ["ground", 6],
          ["run-up", 12],
          ["right", 6],
          ["both", 5],
          ["left", 4],
        ] as const
      ).map(([step, seconds]) => ({ step, seconds })),
    };
    const { samples } = simulateRunUp(options as Parameters<typeof simulateRunUp>[0], plan);
    const reading = readRunUp(traceOf(samples), engine.profile);
    expect(reading.tries.at(-1)?.feel).toBe("quit");
    const [question] = openQuestions(reading, engine.profile, new Set());
    expect(question?.words).toContain("did the engine stop");
  });
});

// No trace can tell which side was which, or whether one was checked twice: common practice.
describe("side names of a trace without prompts", () => {
  const engine = engineAt(0);
  const again = (sides?: MagnetoSideOrder) =>
    read({ kind: "fouled plug", side: "left", cylinder: 2 }, engine, { ...(sides && { sides }) });
  const dropsOf = ({ right, left }: RunUpReading) => [right?.drop, left?.drop];

  it("are first and second until the pilot says", () => {
    const words = observe(again(), orderByAnswer(engine.profile, false), limitsOf(engine)).map(
      (o) => o.words,
    );
    expect(words.some((said) => said.includes("the second side"))).toBe(true);
    expect(words.some((said) => /\b(right|left)\b/i.test(said))).toBe(false);
    expect(again().notes.some(({ sentence }) => /\b(right|left)\b/i.test(sentence))).toBe(false);
    expect(orderByAnswer(engine.profile, true)).toBe(engine.profile);
  });

  it("are as the pilot says: with left first, the right one has the plug", () => {
    const first = again({ first: "right" });
    const turned = again({ first: "left" });
    expect(dropsOf(turned)).toEqual(dropsOf(first).reverse());
    const [best] = diagnose(
      observe(turned, orderByAnswer(engine.profile, false, { first: "left" }), limitsOf(engine)),
      contextOf(engine),
    ).ranked;
    expect(best?.side).toBe("right");
    expect(turned.tries.map(({ side }) => side)).toEqual(["left", "right"]);
  });

  // The good side checked twice looks like one of each: only the pilot can tell.
  it("are one where it was one: then the other is asked about, and is not grounded if nothing dropped on it", () => {
    const twice = (told?: MagnetoSideOrder) =>
      read({ kind: "none" }, engine, { ...(told && { sides: told }) });
    const { told, named, asked, sides } = answerAll(twice, engine, {
      order: "The same",
      "which side": "Left",
      "other side": "Checked",
    });
    expect(asked.slice(0, 3)).toEqual(["order", "which side", "other side"]);
    expect(sides).toEqual({ same: true, first: "left" });
    expect(named.right).toBeUndefined();
    expect(named.tries.map(({ side }) => side)).toEqual(["left", "left"]);
    expect(named.left?.drop).toBe(named.tries[1]?.drop);
    expect(named.notes.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(["second never tried", "repeated"]),
    );
    const rest = observe(named, engine.profile, limitsOf(engine)).filter((o) => o.feature !== "shown");
    const { ranked } = diagnose([...rest, ...told], contextOf(engine));
    // With the key on right, the left magneto kept firing.
    expect(ranked[0] && isA("hot magneto", "left")(ranked[0])).toBe(true);
  });
});

describe("two sides compared", () => {
  it("a drop within limits but much larger than the other is uneven", () => {
    const engine = engineAt(1);
    const reading = read({ kind: "none" }, engine, { prompted: true });
    const { right, left } = reading;
    if (!right || !left) throw new Error("both sides are needed");
    const uneven = { ...reading, left: { ...left, drop: right.drop + 60 } };
    const states = observe(uneven, engine.profile, limitsOf(engine)).filter((o) => o.feature === "drop");
    expect(states.map(({ side, state }) => [side, state])).toEqual([
      ["right", "usual"],
      ["left", "uneven"],
    ]);
    expect(states[1]?.words).toContain("60 more than on the other");
  });

  it("a pilot who is quicker on the second side does not cause a timing fault", () => {
    // The exhaust is still hot from the first side, and the second is shorter: raw rises differ, aligned ones do not.
    const engine = engineAt(0);
    const options = runUpCase("none", 5, engine).options;
    const plan = {
      steps: (
        [
          ["ground", 6],
          ["run-up", 14],
          ["right", 11],
          ["both", 4.5],
          ["left", 6],
          ["both", 8],
        ] as const
      ).map(([step, seconds]) => ({ step, seconds })),
    };
    const { samples, told } = simulateRunUp(options, plan);
    const marks = told.map(({ step, at }): Mark => ({ step, t: at }));
    const reading = readRunUp(traceOf(samples), engine.profile, marks);
    const rise = (side: "right" | "left", of: "egtChange" | "egtBeside") =>
      Object.values(reading[side]?.[of] ?? {}).reduce((a, b) => a + b, 0) / engine.shape.cylinders;
    expect(rise("right", "egtChange") - rise("left", "egtChange")).toBeGreaterThan(20);
    expect(Math.abs(rise("right", "egtBeside") - rise("left", "egtBeside"))).toBeLessThan(15);
    expect(
      observe(reading, engine.profile, limitsOf(engine)).some(({ state }) => state === "much hotter"),
    ).toBe(false);
  });
});
