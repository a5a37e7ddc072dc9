import { FAULT_KINDS } from "../engine-model/index";
import { tally } from "../testing/run-up-cases";
import {
  calibrate,
  type DiagnosisContext,
  diagnose,
  diagnoseInterpretations,
  diagnosisReport,
  FAULTS,
  type Fault,
  FEATURES,
  type Feature,
  HEALTHY,
  hypotheses,
  hypothesisName,
  type Likelihood,
  lessonChoices,
  MAGNETO_FEATURES,
  NAMES_CYLINDER,
  type Observation,
  outcomeOf,
  rankTests,
  TESTS,
  UNKNOWN_FAULT,
} from "./index";

const FOUR: DiagnosisContext = { cylinders: 4, fuelSystem: "carburettor", propeller: "fixed", suction: true };
const seen = (feature: Feature, state: string, more: Partial<Observation> = {}) =>
  ({ feature, state, words: "", ...more }) as Observation;
const sum = (values: number[]) => values.reduce((a, b) => a + b, 0);

/** Features a trace shows without further tests. */
const IN_A_TRACE = [
  "drop",
  "shown",
  "feel",
  "exhaust",
  "heat",
  "volts",
  "suction",
  "oilPressure",
  "propeller",
  "idle",
  "idleExhaust",
  "probe",
] as const satisfies readonly Feature[];

const FOULED: Observation[] = [
  seen("drop", "usual", { side: "right" }),
  seen("exhaust", "hotter", { side: "right" }),
  seen("drop", "over", { side: "left" }),
  seen("feel", "rough", { side: "left" }),
  seen("exhaust", "one colder", { side: "left", cylinder: 3 }),
];
const NO_DROP: Observation[] = [
  seen("drop", "none", { side: "right" }),
  seen("exhaust", "no change", { side: "right" }),
  seen("drop", "usual", { side: "left" }),
  seen("exhaust", "hotter", { side: "left" }),
];

describe("a trace with several interpretations", () => {
  const way = (weight: number, observations: Observation[]) => ({ weight, observations, context: FOUR });
  const of = (id: string | undefined, ways: Parameters<typeof diagnoseInterpretations>[0]) =>
    diagnoseInterpretations(ways).ranked.filter(({ fault }) => fault?.id === id);
  const chance = (id: string | undefined, ways: Parameters<typeof diagnoseInterpretations>[0]) =>
    sum(of(id, ways).map(({ probability }) => probability));

  it("has the weighted probability of all interpretations: the law of total probability", () => {
    for (const weight of [0.1, 0.5, 0.9]) {
      const ways = [way(weight, FOULED), way(1 - weight, NO_DROP)];
      for (const id of [undefined, "fouled plug", "hot magneto"])
        expect(chance(id, ways)).toBeCloseTo(
          weight * chance(id, [way(1, FOULED)]) + (1 - weight) * chance(id, [way(1, NO_DROP)]),
          9,
        );
      expect(sum(diagnoseInterpretations(ways).ranked.map(({ probability }) => probability))).toBeCloseTo(
        1,
        9,
      );
    }
  });

  it("is less certain than any single interpretation, and its evidence comes from one that shows it", () => {
    const told = {
      ...seen("exhaust", "one colder", { side: "left", cylinder: 3 }),
      words: "Cylinder 3 fell.",
    };
    const fouled = [...FOULED.slice(0, 4), told];
    const report = diagnosisReport([], FOUR, undefined, { weight: 0.2, others: [way(0.8, fouled)] });
    expect(report.ranked[0]?.probability).toBeLessThan(
      diagnosisReport(fouled, FOUR).ranked[0]?.probability ?? 0,
    );
    expect(report.ranked[0]?.cylinder).toBe(3);
    expect(report.telling).toContain("Cylinder 3 fell.");
  });

  it("with one interpretation stays unchanged", () => {
    expect(diagnoseInterpretations([way(0.3, FOULED)]).ranked).toEqual(diagnose(FOULED, FOUR).ranked);
  });
});

describe("calibrated probabilities of traces without prompts", () => {
  const { ranked } = diagnose(FOULED, FOUR);
  const troubles = (of: typeof ranked) => {
    const chances = new Map<string | undefined, number>();
    for (const { fault, probability } of of)
      chances.set(fault?.id, (chances.get(fault?.id) ?? 0) + probability);
    return chances;
  };

  it("are unchanged at one, and can be inverted", () => {
    const back = calibrate(calibrate(ranked, 0.7), 1 / 0.7);
    for (const row of [calibrate(ranked, 1), back])
      row.forEach((one, i) => {
        expect(one.probability).toBeCloseTo(ranked[i]?.probability ?? -1, 12);
      });
  });

  // Temperature scaling, Guo et al. (2017): the order of the classes stays, and 0.8 against 0.2 is (0.8 / 0.2) ^ (1 / T).
  it.each([0.5, 0.9, 1.7])("at %s leaves the order of faults and the parts among a fault's places", (t) => {
    const changed = calibrate(ranked, t);
    const [was, is] = [troubles(ranked), troubles(changed)];
    expect(sum([...is.values()])).toBeCloseTo(1, 12);
    const order = (of: typeof was) => [...of].sort((a, b) => b[1] - a[1]).map(([id]) => id);
    expect(order(is)).toEqual(order(was));
    const [first, second] = order(was);
    expect((is.get(first) ?? 0) / (is.get(second) ?? 1)).toBeCloseTo(
      ((was.get(first) ?? 0) / (was.get(second) ?? 1)) ** (1 / t),
      6,
    );
    for (const one of ranked) {
      const same = changed.find(
        ({ fault, side, cylinder }) =>
          fault?.id === one.fault?.id && side === one.side && cylinder === one.cylinder,
      );
      expect((same?.probability ?? 0) / (is.get(one.fault?.id) ?? 1)).toBeCloseTo(
        one.probability / (was.get(one.fault?.id) ?? 1),
        9,
      );
    }
  });

  it("apply to traces without prompts, with one or several interpretations", () => {
    const unprompted = { ...FOUR, unprompted: true as const };
    expect(diagnose(FOULED, unprompted).ranked).toEqual(calibrate(ranked));
    expect(
      diagnoseInterpretations([{ weight: 1, observations: FOULED, context: unprompted }]).ranked,
    ).toEqual(calibrate(ranked));
    expect(diagnose(FOULED, unprompted).ranked[0]?.probability).toBeGreaterThan(ranked[0]?.probability ?? 1);
  });
});

describe("a cylinder that deviates slightly at low power", () => {
  const apart = (state: string, cylinder = 2) => seen("idleExhaust", state, { cylinder });
  const leak = (state: string) =>
    diagnose([...USUAL, apart(state)], FOUR).ranked.find(
      ({ fault, cylinder }) => fault?.id === "induction leak" && cylinder === 2,
    )?.probability ?? 0;
  const USUAL = (["right", "left"] as const).flatMap((side) => [
    seen("drop", "usual", { side }),
    seen("exhaust", "hotter", { side }),
  ]);

  it("adds a leak there to the candidates, and no more than that", () => {
    const { ranked, byRates } = diagnose([...USUAL, apart("a little apart")], { ...FOUR, coarse: true });
    expect(hypothesisName(ranked[0] as never)).toBe("no fault");
    expect(byRates[0]?.probability).toBeGreaterThan(0.9);
    expect(leak("a little apart")).toBeGreaterThan(leak("alike"));
    expect(leak("a little apart")).toBeLessThan(leak("one apart"));
  });

  it("is no evidence against a fault of another cylinder that showed nothing there", () => {
    const wild = [...USUAL, seen("probe", "wild", { cylinder: 1 })];
    const chance = (more: Observation[]) =>
      diagnose([...wild, ...more], { ...FOUR, coarse: true }).ranked.find(
        ({ fault, cylinder }) => fault?.id === "sensor fault" && cylinder === 1,
      )?.probability ?? 0;
    expect(chance([apart("a little apart", 3)])).toBeGreaterThan(0.8 * chance([]));
  });
});

describe("the fault library as data", () => {
  it.each(Object.entries(HEALTHY))("a healthy engine's %s adds up to one over its states", (feature, {
    states,
  }) => {
    expect(sum(Object.values(states))).toBeCloseTo(1, 9);
    expect(Object.keys(states).sort()).toEqual([...FEATURES[feature as Feature]].sort());
  });

  it.each(
    FAULTS.map((fault) => [fault.id, fault] as const),
  )("%s: every likelihood is one of known states, not over one, with its reason", (_, fault) => {
    for (const [key, { states, why }] of Object.entries(fault.shows)) {
      const [feature, place] = key.split(".") as [Feature, string | undefined];
      expect(Object.keys(FEATURES)).toContain(feature);
      if (place) expect(MAGNETO_FEATURES.has(feature)).toBe(true);
      for (const state of Object.keys(states)) expect(FEATURES[feature]).toContain(state);
      expect(sum(Object.values(states))).toBeLessThanOrEqual(1 + 1e-9);
      if (Object.keys(states).length === FEATURES[feature].length)
        expect(sum(Object.values(states))).toBeCloseTo(1, 9);
      expect(why.length).toBeGreaterThan(8);
    }
    expect(fault.action.length).toBeGreaterThan(10);
  });

  it("has every fault that can be simulated, and one pilot error", () => {
    const ids = FAULTS.map((fault) => fault.id);
    expect([...ids].sort()).toEqual(
      [...FAULT_KINDS.filter((kind) => kind !== "none"), "key not turned"].sort(),
    );
  });

  it("rates of all explanations add up to one for every engine", () => {
    for (const context of [
      FOUR,
      {
        ...FOUR,
        cylinders: 6,
        fuelSystem: "injected" as const,
        propeller: "constant speed" as const,
        suction: false,
      },
    ])
      expect(sum(hypotheses(context).map((h) => h.probability))).toBeCloseTo(1, 9);
  });

  it("an injected engine has no carburettor ice, and one without a pump no suction", () => {
    const ids = hypotheses({ ...FOUR, fuelSystem: "injected", suction: false }).map((h) => h.fault?.id);
    expect(ids).not.toContain("carburettor ice");
    expect(ids).not.toContain("suction low");
  });
});

describe("the most likely cause", () => {
  it("follows Bayes' rule: one observation, by hand", () => {
    const { ranked } = diagnose([seen("volts", "high")], FOUR);
    const all = hypotheses(FOUR);
    // By hand: rate · probability of "high", divided by the sum over all explanations; only the regulator differs from a healthy
    // engine's 0.001, the alternator off line (0.005), and the unknown fault, which shows in one of five features and then
    // equally in each state.
    const weights: Record<string, number> = {
      "regulator high": 0.97,
      "alternator off line": 0.005,
      "not on file": 0.8 * 0.001 + 0.2 / 3,
    };
    const weight = (id = "") => weights[id] ?? 0.001;
    const total = sum(all.map((h) => h.probability * weight(h.fault?.id)));
    const regulator = all.find((h) => h.fault?.id === "regulator high");
    expect(ranked[0]?.fault?.id).toBe("regulator high");
    expect(ranked[0]?.probability).toBeCloseTo(((regulator?.probability ?? 0) * 0.97) / total, 9);
    expect(sum(ranked.map((h) => h.probability))).toBeCloseTo(1, 9);
  });

  it("is no fault without observations, and with everything normal", () => {
    expect(diagnose([], FOUR).ranked[0]?.fault).toBeUndefined();
    expect(
      diagnose([seen("drop", "usual", { side: "right" }), seen("drop", "usual", { side: "left" })], FOUR)
        .ranked[0]?.fault,
    ).toBeUndefined();
  });

  it("names plug and cylinder where one EGT falls on one side", () => {
    const [best] = diagnose(FOULED, FOUR).ranked;
    expect(best && hypothesisName(best)).toBe("fouled plug, cylinder 3, left magneto");
    expect(best?.probability).toBeGreaterThan(0.7);
  });

  it("with no drop on right it is the left magneto that is not grounded; a key not turned is considered until asked", () => {
    const unsure = diagnose([...NO_DROP, seen("turned", "not sure", { side: "right" })], FOUR).ranked[0];
    expect(unsure && hypothesisName(unsure)).toBe("right not checked, or the key was not turned far enough");
    const sure = diagnose([...NO_DROP, seen("turned", "confirmed", { side: "right" })], FOUR).ranked[0];
    expect(sure && hypothesisName(sure)).toBe("left magneto not grounded by the switch");
  });

  it("repeated identical observations only increase certainty; side names are the type's", () => {
    const once = diagnose(FOULED, FOUR).ranked[0]?.probability ?? 0;
    const after = diagnose([...FOULED, seen("cleared", "gone")], FOUR).ranked[0];
    expect(after?.probability).toBeGreaterThan(once);
    expect(after && hypothesisName(after, { right: "ignition one", left: "ignition two" })).toContain(
      "ignition two",
    );
  });

  it("a plug that does not clear is more likely dead", () => {
    const before = diagnose(FOULED, FOUR).ranked.find(
      (h) => h.fault?.id === "dead plug" && h.cylinder === 3 && h.side === "left",
    );
    const after = diagnose([...FOULED, seen("cleared", "same")], FOUR).ranked[0];
    expect(after?.fault?.id).toBe("dead plug");
    expect(after?.probability).toBeGreaterThan((before?.probability ?? 1) * 2);
  });

  it("of two simultaneous faults is one of the two, and hardly ever a third", () => {
    // The most typical signs of two faults combined; if both change a side's drop, the second one's. Faults separated only by a
    // later test count as one: the plugs, and the two reasons for no drop.
    const kin = (id = "none") =>
      id === "dead plug" ? "fouled plug" : id === "key not turned" ? "hot magneto" : id;
    const most = ({ states }: Likelihood) =>
      Object.entries(states).reduce((a, b) => (b[1] > a[1] ? b : a))[0];
    const six: DiagnosisContext = { ...FOUR, propeller: "constant speed" };
    const known = FAULTS.filter((fault) => !fault.only || fault.only(six));
    const both = (pair: Fault[]) =>
      IN_A_TRACE.flatMap((feature) =>
        (MAGNETO_FEATURES.has(feature) ? (["right", "left"] as const) : [undefined]).map((side) => {
          const usual = most(HEALTHY[feature]);
          const shown = pair.flatMap(({ shows }) => {
            const own = side ? shows[`${feature}.${side === "left" ? "this" : "other"}`] : undefined;
            const state = own ?? shows[feature];
            return state && most(state) !== usual ? [most(state)] : [];
          });
          const state = shown.at(-1) ?? usual;
          const cylinder = NAMES_CYLINDER.has(state as never) && { cylinder: 3 };
          return seen(feature, state, { ...(side && { side }), ...cylinder });
        }),
      );
    const thirds: string[] = [];
    let pairs = 0;
    known.forEach((a, i) => {
      for (const b of known.slice(i + 1)) {
        pairs++;
        const troubles = new Map<string, number>();
        for (const { fault, probability } of diagnose(both([a, b]), six).ranked)
          troubles.set(kin(fault?.id), (troubles.get(kin(fault?.id)) ?? 0) + probability);
        const [first = ""] = [...troubles].sort((x, y) => y[1] - x[1])[0] ?? [];
        if (![kin(a.id), kin(b.id), "not on file"].includes(first)) thirds.push(`${a.id}, ${b.id}: ${first}`);
      }
    });
    expect(pairs).toBeGreaterThan(130);
    // Cases where one fault hides the other's sign, or both change one number: low idle plus no heat looks like ice.
    expect(thirds.length).toBeLessThanOrEqual(8);
    expect(thirds.filter((words) => words.endsWith(": none"))).toEqual([]);
  });

  it("reports when no known fault explains clear observations", () => {
    const odd = [
      seen("volts", "high"),
      seen("oilPressure", "low"),
      seen("idle", "quits"),
      seen("suction", "low"),
    ];
    // It has a probability of its own, and is reported when signs of four faults come together.
    const [best] = diagnose(odd, FOUR).ranked;
    expect(best?.fault).toBe(UNKNOWN_FAULT);
    expect(best?.probability).toBeGreaterThan(0.8);
    expect(diagnose(FOULED, FOUR).fits).toBeGreaterThan(0.3);
  });
});

describe("the next test", () => {
  it("is clearing for a plug, and the same side again for no drop", () => {
    expect(rankTests(diagnose(FOULED, FOUR).ranked, FOUR, FOULED)[0]?.test.id).toBe("clear");
    const [again] = rankTests(diagnose(NO_DROP, FOUR).ranked, FOUR, NO_DROP);
    expect(again?.test.id).toBe("again");
    expect(again?.side).toBe("right");
  });

  it("has the information of its entropy reduction, by hand for two explanations (Lindley 1956)", () => {
    const [fouled, dead] = ["fouled plug", "dead plug"].map((id) => ({
      fault: FAULTS.find((f) => f.id === id),
      side: "left" as const,
      cylinder: 3,
      probability: 0.5,
    }));
    const [clear] = rankTests([fouled, dead] as never, FOUR).filter((t) => t.test.id === "clear");
    const h = (p: number) => -p * Math.log2(p) - (1 - p) * Math.log2(1 - p);
    const gone = 0.5 * 0.9 + 0.5 * 0.03;
    const expected = 1 - gone * h((0.5 * 0.9) / gone) - (1 - gone) * h((0.5 * 0.1) / (1 - gone));
    expect(clear?.bits).toBeCloseTo(expected, 9);
  });

  it("never has negative information, nor more than there is, and nothing is asked twice", () => {
    for (const observations of [[], FOULED, NO_DROP]) {
      const { ranked } = diagnose(observations, FOUR);
      const entropy = -sum(ranked.map(({ probability: p }) => (p > 0 ? p * Math.log2(p) : 0)));
      for (const { bits, outcomes } of rankTests(ranked, FOUR, [], 0)) {
        expect(bits).toBeGreaterThanOrEqual(-1e-9);
        expect(bits).toBeLessThanOrEqual(entropy + 1e-9);
        expect(sum(outcomes.map((o) => o.chance))).toBeCloseTo(1, 9);
      }
    }
    const done = [...FOULED, seen("cleared", "same")];
    expect(rankTests(diagnose(done, FOUR).ranked, FOUR, done).map((t) => t.test.id)).not.toContain("clear");
  });

  it("always has instructions and a caution of its own, and separates some faults", () => {
    expect(new Set(TESTS.map((test) => test.how)).size).toBe(TESTS.length);
    for (const test of TESTS) {
      for (const words of [test.title, test.how, test.caution]) expect(words).toMatch(/^[A-Z].{9,}[^,;:]$/);
      expect(test.how).not.toBe(test.caution);
      // A test with the same outcome under every explanation is useless.
      const { ranked } = diagnose([], FOUR);
      const [ranking] = rankTests(ranked, FOUR, [], 0).filter((one) => one.test.id === test.id);
      if (ranking) expect(ranking.bits).toBeGreaterThan(0);
    }
  });

  it("a remedy is judged by whether the finding is still there", () => {
    expect(
      outcomeOf(FOULED, [
        seen("drop", "usual", { side: "left" }),
        seen("exhaust", "hotter", { side: "left" }),
      ]),
    ).toBe("gone");
    expect(outcomeOf(FOULED, [seen("exhaust", "one colder", { side: "left", cylinder: 3 })])).toBe("same");
    // Without probes, drop and feel must show it: smaller than before is not yet gone.
    expect(outcomeOf(FOULED, [seen("drop", "uneven", { side: "left" })])).toBe("same");
    expect(
      outcomeOf([seen("feel", "rough", { side: "left" })], [seen("feel", "rough", { side: "left" })]),
    ).toBe("same");
    expect(
      outcomeOf([seen("feel", "rough", { side: "left" })], [seen("feel", "smooth", { side: "left" })]),
    ).toBe("gone");
  });
});

describe("on simulated run-ups (the model shares no numbers with the library; many more in the benchmark)", () => {
  it("the simulated fault is first in nine of ten and among the first three in 99 of 100; a healthy engine raises no alarm", () => {
    const { cases, first, three, healthy, alarms } = tally({ each: 1, healthyEach: 2, seed: 77 });
    expect(cases).toBeGreaterThan(55);
    expect(first / cases).toBeGreaterThanOrEqual(0.9);
    expect(three / cases).toBeGreaterThanOrEqual(0.98);
    expect(alarms).toBe(0);
    expect(healthy).toBe(8);
  });
});

describe("a diagnosis report", () => {
  it("names plug and side in the type's words, the evidence, and the most useful test", () => {
    const words = FOULED.map((o) => ({ ...o, words: `${o.feature} ${o.side}` }));
    const report = diagnosisReport(words, FOUR, { right: "ignition one", left: "ignition two" });
    expect(report.ranked[0]).toMatchObject({ fault: "fouled plug", side: "left", cylinder: 3, grade: "ask" });
    expect(report.ranked[0]?.name).toContain("ignition two");
    expect(report.telling[0]).toBe("exhaust left");
    expect(report.telling).not.toContain("drop right");
    expect(report.next[0]?.id).toBe("clear");
    expect(report.unlike).toBe(false);
    // Sent to and from a worker: it must not contain functions.
    expect(structuredClone(report)).toEqual(report);
  });

  it("has no evidence where no fault is found", () => {
    expect(diagnosisReport([], FOUR)).toMatchObject({ telling: [], unlike: false });
  });
});

describe("answers offered in a lesson", () => {
  const ranked = diagnosisReport(FOULED, FOUR).ranked;

  it.each([
    "fouled plug",
    "idle low",
    "none",
  ])("the truth (%s) and that nothing is wrong are among them, each once", (truth) => {
    const choices = lessonChoices(ranked, truth);
    expect(choices).toContain(truth);
    expect(choices).toContain("none");
    expect(new Set(choices).size).toBe(choices.length);
    expect(choices.length).toBeLessThanOrEqual(4);
    expect(choices.length).toBeGreaterThanOrEqual(3);
  });

  it("are the true one and the most similar ones", () => {
    expect(lessonChoices(ranked, "fouled plug")).toEqual(
      expect.arrayContaining(["dead plug", "fouled plug", "none"]),
    );
  });

  it("are in an order that does not reveal the true one", () => {
    const same = ["fouled plug", "dead plug", "none"];
    const orders = same.map((truth) =>
      lessonChoices([{ fault: "dead plug" }, { fault: "fouled plug" }], truth, 3),
    );
    expect(new Set(orders.map((order) => order.filter((kind) => same.includes(kind)).join())).size).toBe(1);
  });
});
