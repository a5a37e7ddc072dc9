import { applyPatch } from "./apply-patch";

it("takes what is shown again, takes away what is shown to be nothing, and leaves the rest and what was before", () => {
  const before: { title: string; bad?: string; part?: string } = { title: "rail", bad: "loose" };
  expect(applyPatch(before, { title: "left rail", part: "seat", bad: undefined })).toStrictEqual({
    title: "left rail",
    part: "seat",
  });
  expect(before).toStrictEqual({ title: "rail", bad: "loose" });
});
