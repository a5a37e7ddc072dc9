import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { NO_WEIGHING, profileOf, type WeighingDraft, weighingOf } from "./weighing-draft";

const source = { kind: "handbook" as const, text: "report 1", example: true };
const profile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  weighing: { date: "2020-01-01", emptyKg: 300, armMm: 350, source },
} as LoadingProfile;
const DRAFT: WeighingDraft = { ...NO_WEIGHING, date: "2026-03-01", kg: "701,5", mm: "812", text: "report 2" };
const faultsOf = async (more: Partial<WeighingDraft>) => {
  const entry = await profileOf(profile, { ...DRAFT, ...more });
  return "faults" in entry ? entry.faults.map(({ at }) => at) : [];
};

test("a weighing from a draft, with a decimal comma", () =>
  expect(weighingOf(DRAFT)).toEqual({
    date: "2026-03-01",
    emptyKg: 701.5,
    armMm: 812,
    source: { kind: "handbook", text: "report 2", example: false },
  }));

test.each<[Partial<WeighingDraft>, string[]]>([
  [NO_WEIGHING, ["date", "kg", "mm", "text"]],
  [{ kg: "heavy" }, ["kg"]],
  [{ mm: "" }, ["mm"]],
  [{ text: "  " }, ["text"]],
])("what is missing is named at its field: %j", async (more, at) => expect(await faultsOf(more)).toEqual(at));

test("what the file's schema refuses comes back at its field, the rest of the file as a whole", async () => {
  expect(await faultsOf({ date: "2026-02-31" })).toContain("date");
  expect(await faultsOf({ kg: "-5" })).toContain("kg");
  // The rest of this file is incomplete.
  expect(await faultsOf({})).toContain("root");
});
