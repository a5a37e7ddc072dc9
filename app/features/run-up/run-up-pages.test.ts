import { FIRST_PAGE, type ManualValues, type RunUpState, type RunUpStep, runUpPages } from "./run-up-pages";

const after = (...steps: RunUpStep[]): RunUpState => steps.reduce(runUpPages, FIRST_PAGE);
const live: RunUpStep = { type: "source", source: "live" };
const known = { rpm: 1800 } as unknown as ManualValues;

test.each<[string, RunUpStep[], RunUpState]>([
  ["from the monitor", [live], { page: { name: "monitor", practice: false, listening: "run-up" }, round: 0 }],
  [
    "practice is told apart",
    [{ type: "source", source: "practice" }],
    { page: { name: "monitor", practice: true, listening: "run-up" }, round: 0 },
  ],
  ["a file", [{ type: "source", source: "file" }], { page: { name: "file" }, round: 0 }],
  ["read: results show on the first page", [live, { type: "measured" }], FIRST_PAGE],
  [
    "clearing after a run-up is a new measurement",
    [live, { type: "measured" }, { type: "clear the plug", practice: false }],
    { page: { name: "monitor", practice: false, listening: "after clearing" }, round: 1 },
  ],
  [
    "ended without a trace: the next run-up is none after clearing",
    [{ type: "clear the plug", practice: false }, { type: "measured" }, live],
    { page: { name: "monitor", practice: false, listening: "run-up" }, round: 1 },
  ],
  [
    "clearing alone listens to the monitor",
    [{ type: "procedure", procedure: "clear" }],
    { page: { name: "monitor", practice: false, listening: "clearing alone" }, round: 1 },
  ],
  [
    "another procedure has its own page",
    [{ type: "procedure", procedure: "warm up" }],
    { page: { name: "procedure", procedure: "warm up" }, round: 1 },
  ],
  [
    "an incomplete trace is completed by hand, also after a fault",
    [{ type: "complete by hand", known }, { type: "enter again" }],
    { page: { name: "by hand", known }, round: 0 },
  ],
  [
    "another run-up has its own numbers",
    [{ type: "complete by hand", known }, { type: "back" }, { type: "source", source: "typed" }],
    { page: { name: "by hand" }, round: 0 },
  ],
  [
    "another run-up forgets the guess",
    [{ type: "guess", guess: "fouled" }, { type: "another run-up" }],
    { page: { name: "sources" }, round: 1 },
  ],
])("%s", (_, steps, state) => expect(after(...steps)).toEqual(state));

test("an emergency card covers the page and gives it back as it was", () => {
  const before = after(live);
  const card = { id: "no drop", side: "left", practice: false } as const;
  const covered = runUpPages(runUpPages(before, { type: "emergency", card: "list" }), {
    type: "emergency",
    card,
  });
  expect(covered).toEqual({ ...before, emergency: card });
  expect(runUpPages(covered, { type: "emergency over" })).toEqual(before);
});

test("a trace read under an emergency card leaves the card", () => {
  const card = { id: "stops on one", side: "right", practice: false } as const;
  expect(after(live, { type: "emergency", card }, { type: "measured" }).emergency).toEqual(card);
});
