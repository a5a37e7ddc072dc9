import { type EarlierPreflight, TURNAROUND_HOURS, turnaroundBlockReason } from "./turnaround";

const NOW = Date.parse("2026-05-01T12:00:00.000Z");
const at = (hoursAgo: number) => new Date(NOW - hoursAgo * 3_600_000).toISOString();
const flown: EarlierPreflight = { crewId: "me", decision: "fly", signedAt: at(3), lastAt: at(1) };
const none = { uplifts: [], signOffs: [] };
const trouble = (walks: EarlierPreflight[], since: Partial<typeof none> = {}) =>
  turnaroundBlockReason(walks, "me", NOW, { ...none, ...since });

test("the same pilot, secured an hour ago, no work since", () => {
  expect(trouble([flown])).toBeUndefined();
  expect(trouble([{ ...flown, signedAt: at(30), lastAt: at(28), crewId: "other" }, flown])).toBeUndefined();
  // Filling one tank after another is one refuelling.
  expect(trouble([flown], { uplifts: [at(0.5), at(0.45)] } as never)).toBeUndefined();
  expect(trouble([flown], { uplifts: [at(0.5), at(5)], signOffs: [at(40)] } as never)).toBeUndefined();
});

test.each([
  ["nothing was flown", [], {}, /no previous flight/],
  ["it was not flown", [{ ...flown, decision: "not flying" as const }], {}, /no previous flight/],
  ["somebody else flew it", [{ ...flown, crewId: "other" }], {}, /Another pilot/],
  ["nobody wrote its hours down", [{ ...flown, lastAt: flown.signedAt }], {}, /after-flight checks first/],
  [
    "it has stood too long",
    [{ ...flown, signedAt: at(6), lastAt: at(TURNAROUND_HOURS + 0.1) }],
    {},
    /more than 2 hours/,
  ],
  ["it was refuelled twice", [flown], { uplifts: [at(0.9), at(0.2)] }, /more than once/],
  ["it was worked on", [flown], { signOffs: [at(0.2)] }, /Maintenance was done/],
] as const)("is none where %s", (_name, walks, since, words) => {
  expect(trouble([...walks], since as never)).toMatch(words);
});
