import { tarrow4 } from "@cravix/demo";
import { readFile } from "./read-file";

/** Faults of the trainer's type if one item has this reading. */
function faultsOf(key: string, unit: string): string[] {
  const at = tarrow4.items.findIndex((item) => item.reading?.key === "oil.level");
  const items = tarrow4.items.map((item, i) => {
    if (i !== at) return item;
    const { limit: _limit, ...rest } = item;
    return { ...rest, reading: { key, unit, decimals: 1 } };
  });
  const reading = readFile({ ...tarrow4, items });
  if (!("faults" in reading)) return [];
  return reading.faults.map(({ path, expected }) => {
    expect(path).toContain(`items[${at}].reading`);
    return expected;
  });
}

test.each([
  ["oil.level", "US qt"],
  ["oil.level", "L"],
  ["fuel.dip.left", "in"],
  ["hours.after", "h"],
  // As in older files.
  ["after.hours", "h"],
  ["tyre-tread", "mm"],
  ["own.seat-rail", "mm"],
])("%s in %s is a reading", (key, unit) => {
  expect(faultsOf(key, unit)).toEqual([]);
});

test.each([
  ["oil.lvl", "US qt", "known"],
  ["hours.later", "h", "known"],
  ["fuel.smell.left", "count", "known"],
  ["oil.level", "rpm", "US qt"],
  ["hours", "L", "converts to h"],
  ["fuel.dip.wing", "cm", "wing does not exist"],
  ["oil.level.port", "US qt", "port does not exist"],
])("%s in %s is reported at its place", (key, unit, words) => {
  expect(faultsOf(key, unit)).toEqual([expect.stringContaining(words)]);
});
