import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { tarrow4 } from "@cravix/demo";
import { circularRule } from "./circular-rules";
import { readFile } from "./read-file";

const type = tarrow4 as AircraftType;
const [a, b, c] = type.items.map(({ id }) => id) as [string, string, string];
const rule = (first: string, waiting: string, more: object = {}) => ({
  id: `${first} before ${waiting}`,
  first,
  waits: { items: [waiting] },
  why: "because",
  ...more,
});
const faultsOf = (rules: object[]) => {
  const reading = readFile({ ...type, rules });
  return "faults" in reading ? reading.faults : [];
};

test("rules that wait for each other are refused with the type, at the rule that closes the circle", () => {
  expect(faultsOf([rule(a, b), rule(b, c)])).toEqual([]);
  expect(faultsOf([rule(a, b), rule(b, a)])).toEqual([
    { path: "rules[1].waits", expected: `items that do not wait for each other; now ${a} and ${b} do` },
  ]);
  expect(faultsOf([rule(a, b), rule(b, c), rule(c, a)])[0]?.path).toBe("rules[2].waits");
});

test("rules of different methods never meet, and an item does not wait for itself", () => {
  const methods = [rule(a, b, { method: "surfaces moved" }), rule(b, a, { method: "surfaces looked at" })];
  expect(circularRule({ ...type, rules: methods } as AircraftType)).toBeUndefined();
  const touched = { ...type, rules: [{ ...rule(a, b), waits: { touches: "everything" } }] };
  const items = touched.items.map((item) => (item.id === a ? { ...item, touches: ["everything"] } : item));
  expect(circularRule({ ...touched, items } as AircraftType)).toBeUndefined();
});
