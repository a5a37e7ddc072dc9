import { deviceDatabase } from "../../device/log/database";
import { noteKeys, writeNote } from "../../device/log/notes";
import { dropRunUp, type RunUpDraft, savedRunUpDraft, saveRunUpDraft } from "./run-up-draft";

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
  await saveRunUpDraft("walk", undefined, made);
  await saveRunUpDraft("walk", "left", { ...made, tries: 0 });
  expect(await savedRunUpDraft("walk", undefined)).toEqual(made);
  expect((await savedRunUpDraft("walk", "left"))?.tries).toBe(0);
  expect(await savedRunUpDraft("another walk", undefined)).toBeUndefined();
  await dropRunUp("walk", undefined);
  expect(await savedRunUpDraft("walk", undefined)).toBeUndefined();
  expect(await savedRunUpDraft("walk", "left")).toBeDefined();
});

test("what an earlier version of the page kept of the only side is still known", async () => {
  const { sides: _sides, ...before } = draft("2026-05-01T09:00:00.000Z");
  await saveRunUpDraft("walk", undefined, { ...before, onlySide: "left" } as RunUpDraft);
  expect(await savedRunUpDraft("walk", undefined)).toEqual(draft("2026-05-01T09:00:00.000Z"));
});

test("one that no one came back to goes after a week; other notes stay", async () => {
  await writeNote("who holds it", "ines");
  await saveRunUpDraft("old", undefined, draft("2026-05-01T09:00:00.000Z"));
  await saveRunUpDraft("younger", undefined, draft("2026-05-07T09:00:00.000Z"));
  await saveRunUpDraft("now", undefined, draft("2026-05-08T10:00:00.000Z"));
  expect(await savedRunUpDraft("old", undefined)).toBeUndefined();
  expect(await savedRunUpDraft("younger", undefined)).toBeDefined();
  expect(await noteKeys("who")).toEqual(["who holds it"]);
});
