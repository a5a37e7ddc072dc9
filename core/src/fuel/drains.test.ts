import { drainAdvice } from "./drain/drain-protocol";
import { judgeSample, type Sample } from "./drain/fuel-sample";
import { settlingMin } from "./drain/settling";

const AVGAS = ["100LL", "UL91"];
const cup = (look: Sample["look"], more: Partial<Sample> = {}): Sample => ({ look, ...more });
const water = (seconds?: number) => cup("water", seconds === undefined ? {} : { seconds });
const step = (since: Sample[], rocked = false, before: Sample[] = []) =>
  drainAdvice(before, since, rocked, AVGAS).step;

// Dyes by ASTM D910 and D7547 (from memory); smell, paper and the look of water: common practice.
describe("a sample against the light", () => {
  test.each<[Sample, string, string]>([
    [cup("clean"), "clean", "within limits"],
    [cup("water"), "drain", "ask"],
    [cup("cloudy"), "drain", "ask"],
    [cup("grit"), "drain", "ask"],
    [cup("kerosene smell"), "finding", "stop"],
    [cup("wrong colour", { colour: "green" }), "finding", "stop"],
    [cup("wrong colour"), "finding", "stop"],
    [cup("colourless"), "finding", "ask"],
    [cup("colourless", { paper: "stays wet" }), "drain", "ask"],
    [cup("colourless", { paper: "greasy ring" }), "finding", "stop"],
    [cup("colourless", { paper: "dries away" }), "other grade", "note"],
  ])("%j is %s", (sample, outcome, grade) => {
    expect(judgeSample(sample, AVGAS)).toMatchObject({ outcome, grade });
  });

  test("without dye, where every grade has one, is another fuel or a mixture", () => {
    expect(judgeSample(cup("colourless", { paper: "dries away" }), ["100LL"])).toMatchObject({
      grade: "stop",
      sentence: expect.stringContaining("mixed"),
    });
  });

  test("green in an aircraft approved for it is a note, not a stop", () => {
    expect(judgeSample(cup("wrong colour", { colour: "green" }), ["100LL", "100"])).toMatchObject({
      outcome: "other grade",
      grade: "note",
      sentence: expect.stringContaining("Avgas 100"),
    });
    expect(judgeSample(cup("wrong colour", { colour: "straw" }), ["100LL"]).sentence).toContain("Kerosene");
  });
});

// Common practice throughout: until clean; rock, wait, every drain again; a minute, then maintenance.
describe("what to do at a drain", () => {
  test("sample, again until clean", () => {
    expect(step([])).toBe("take");
    expect(step([water()])).toBe("again");
    expect(step([water(), cup("clean")])).toBe("clean");
  });
  test("three samples in a row: rock the wings; then every drain again", () => {
    expect(step([water(), water(), water()])).toBe("rock");
    expect(step([], true, [water(), water(), water()])).toBe("take");
    expect(step([water()], true, [water(), water(), water()])).toBe("again");
    expect(step([cup("clean")], true, [water(), water(), water()])).toBe("clean");
  });
  test("three more after rocking, or a minute in all: maintenance", () => {
    const three = [water(), water(), water()];
    expect(step(three, true, three)).toBe("maintenance");
    expect(step([water(30), water(31)])).toBe("maintenance");
    expect(step([water(30), water(29)])).toBe("again");
    expect(step([water(20)], true, [water(20), water(20)])).toBe("maintenance");
  });
  test("what draining cannot fix is a finding at the first sample; a colourless one gets a paper test first", () => {
    expect(step([cup("kerosene smell")])).toBe("maintenance");
    expect(step([cup("colourless")])).toBe("paper");
    expect(step([cup("colourless", { paper: "stays wet" })])).toBe("again");
    expect(step([cup("colourless", { paper: "greasy ring" })])).toBe("maintenance");
    expect(step([cup("colourless", { paper: "dries away" })])).toBe("clean");
  });
  test("a clean sample in between restarts the count", () => {
    expect(step([water(40), water(10), cup("clean"), water(30)])).toBe("again");
  });
});

// Common practice: a quarter of an hour for a foot of gasoline, an hour for a foot of kerosene.
test("water takes a quarter of an hour to sink through a foot of gasoline", () => {
  expect(settlingMin(30.48, false)).toBeCloseTo(15, 9);
  expect(settlingMin(15.24, true)).toBeCloseTo(30, 9);
  expect(() => settlingMin(-1, false)).toThrow("negative");
});
