import { minimaFault, minimaOfDraft, minimaText, NO_MINIMA } from "./minima-draft";

test("what is typed becomes limits; a number that is none, or none at all, becomes nothing", () => {
  expect(minimaOfDraft({ ...NO_MINIMA, typed: { crosswindKt: "8", runwayFactor: "1,4" } })).toEqual({
    crosswindKt: 8,
    runwayFactor: 1.4,
  });
  expect(minimaOfDraft({ ...NO_MINIMA, typed: { windKt: " " }, noNight: true })).toEqual({ noNight: true });
  expect(minimaOfDraft(NO_MINIMA)).toBeUndefined();
  expect(minimaOfDraft({ ...NO_MINIMA, typed: { windKt: "20", ceilingFt: "high" } })).toBeUndefined();
});

test("each entry is rejected at its place", () => {
  expect(minimaFault("crosswindKt", "90")).toBe("Enter a number from 0 to 40.");
  expect(minimaFault("runwayFactor", "0.5")).toBe("Enter a number from 1 to 4.");
  expect(minimaFault("crosswindKt", "")).toBeUndefined();
  expect(minimaFault("crosswindKt", "-1")).toBe("Enter a number from 0 to 40.");
});

test("and said in one line", () => {
  expect(minimaText({ crosswindKt: 8, ceilingFt: 2000, noPassengers: true })).toBe(
    "crosswind at most 8 kt, ceiling at least 2,000 ft, no passengers",
  );
});
