import { draftOfLoad, entryDoubt, entryFault, inOtherUnit, loadOf, tankFault } from "./load-draft";

const profile = {
  stations: [
    { id: "front", name: "front seats", kind: "seat" as const, armMm: 940, maxKg: 230 },
    { id: "bags", name: "baggage", kind: "baggage" as const, armMm: 2420 },
  ],
  tanks: [
    { tank: "left", armMm: 1220 },
    { tank: "right", armMm: 1220 },
  ],
};

test("what was measured last stands in the tanks as far as each holds; what was planned comes before it", () => {
  expect(draftOfLoad(profile, { measuredL: 90, capacityL: { left: 100, right: 50 } }).litres).toEqual({
    left: "60",
    right: "30",
  });
  const planned = { stations: { front: 150.25, bags: 0 }, litres: { left: 12, right: 13 } };
  expect(draftOfLoad(profile, { planned, measuredL: 90 })).toEqual({
    unit: "kg",
    stations: { front: "150.3", bags: "" },
    litres: { left: "12", right: "13" },
  });
});

/** NIST SP 811: 1 lb is 0.45359237 kg. */
test("pounds become kilograms by the legal pound; an empty field is nothing; anything that is not a number makes no load", () => {
  const draft = {
    unit: "lb" as const,
    stations: { front: "340", bags: " " },
    litres: { left: "20,5", right: "" },
  };
  expect(loadOf(draft)).toEqual({ stations: { front: 154.221, bags: 0 }, litres: { left: 20.5, right: 0 } });
  expect(loadOf({ ...draft, stations: { front: "two of us" } })).toBeUndefined();
});

test("what cannot be, and what may be meant otherwise, is shown at its place", () => {
  expect(["", "80", "80,5"].map(entryFault)).toEqual([undefined, undefined, undefined]);
  expect(["x", "-1", "9999"].map((text) => typeof entryFault(text))).toEqual(["string", "string", "string"]);
  const [front, bags] = profile.stations;
  expect(front && entryDoubt("340", "kg", front)).toContain("Is this in pounds?");
  expect(front && entryDoubt("170", "kg", front)).toBeUndefined();
  expect(front && entryDoubt("340", "lb", front)).toBeUndefined();
  expect(bags && entryDoubt("340", "kg", bags)).toBeUndefined();
  expect(tankFault("101", 100)).toBe("It holds 100 L.");
  expect(tankFault("100", 100)).toBeUndefined();
});

/** NIST SP 811 as above. */
test("masses turn into the other unit and back; anything that is not a number stays as it was typed", () => {
  const typed = { front: "150", bags: "", shelf: "two bags" };
  const pounds = inOtherUnit(typed, "lb");
  expect(pounds).toEqual({ front: "330.7", bags: "", shelf: "two bags" });
  expect(inOtherUnit(pounds, "kg")).toEqual(typed);
});
