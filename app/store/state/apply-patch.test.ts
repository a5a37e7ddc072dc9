import { applyPatch } from "./apply-patch";

it("updates changed entries, removes empty ones, and leaves the rest", () => {
  const before: { title: string; bad?: string; part?: string } = { title: "rail", bad: "loose" };
  expect(applyPatch(before, { title: "left rail", part: "seat", bad: undefined })).toStrictEqual({
    title: "left rail",
    part: "seat",
  });
  expect(before).toStrictEqual({ title: "rail", bad: "loose" });
});
