import { deviceDatabase } from "../../device/log/database";
import { noteKeys, writeNote } from "../../device/log/notes";
import { dropRunUp, keepRunUp, keptRunUp, type RunUpDraft } from "./run-up-draft";

const draft = (at: string): RunUpDraft => ({
  at,
  trace: { t: Float64Array.of(0, 0.1), channels: { rpm: Float64Array.of(1800, Number.NaN) } },
  source: "file",
  tries: 1,
  told: [{ feature: "turned", state: "confirmed", side: "right", words: "Asked: the key was on right." }],
  asked: ["which side"],
  sides: { first: "left" },
});

beforeEach(async () => {
  await (await deviceDatabase()).clear("notes");
});

test("a trace with its answers comes back as it was, each engine's own, and is gone once it is done again", async () => {
  const made = draft("2026-05-01T09:00:00.000Z");
  await keepRunUp("walk", undefined, made);
  await keepRunUp("walk", "left", { ...made, tries: 0 });
  expect(await keptRunUp("walk", undefined)).toEqual(made);
  expect((await keptRunUp("walk", "left"))?.tries).toBe(0);
  expect(await keptRunUp("another walk", undefined)).toBeUndefined();
  await dropRunUp("walk", undefined);
  expect(await keptRunUp("walk", undefined)).toBeUndefined();
  expect(await keptRunUp("walk", "left")).toBeDefined();
});

test("what an earlier version of the page kept of the only side is still known", async () => {
  const { sides: _sides, ...before } = draft("2026-05-01T09:00:00.000Z");
  await keepRunUp("walk", undefined, { ...before, onlySide: "left" } as RunUpDraft);
  expect(await keptRunUp("walk", undefined)).toEqual(draft("2026-05-01T09:00:00.000Z"));
});

test("one that nobody came back to goes after a week; other notes stay", async () => {
  await writeNote("who holds it", "ines");
  await keepRunUp("old", undefined, draft("2026-05-01T09:00:00.000Z"));
  await keepRunUp("younger", undefined, draft("2026-05-07T09:00:00.000Z"));
  await keepRunUp("now", undefined, draft("2026-05-08T10:00:00.000Z"));
  expect(await keptRunUp("old", undefined)).toBeUndefined();
  expect(await keptRunUp("younger", undefined)).toBeDefined();
  expect(await noteKeys("who")).toEqual(["who holds it"]);
});
