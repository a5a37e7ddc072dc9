import type { OwnItem } from "@cravix/core/aircraft/aircraft-type";
import { qxTar, tarrow4 } from "@cravix/demo";
import { errorsOf, firstFault } from "../../ui/form/form-faults";
import { isChanged, ownDifference } from "./difference";
import { fileOf, newItem, savedItems } from "./own-items-draft";

const [rail] = qxTar.ownItems;
if (!rail) throw new Error("the trainer has an item of its own");

test("an item that nobody touched is no change, whatever the order of its fields", () => {
  const withBad: OwnItem = { bad: "it slides", ...rail };
  expect(isChanged(ownDifference(tarrow4, [withBad], savedItems([withBad], [withBad])))).toBe(false);
});

test("a title that is changed names its part again; one that is not keeps the part of the file", () => {
  const filed: OwnItem = { ...rail, part: "Seat rail, as filed" };
  expect(savedItems([filed], [filed])).toEqual([filed]);
  const [renamed] = savedItems([filed], [{ ...filed, title: "Right tip: new screw" }]);
  expect(renamed?.part).toBe("Right tip");
});

test("an emptied text is left out, and only a count has a number", () => {
  const [saved] = savedItems([], [{ ...newItem("own.a", "left-tip"), title: "Tip", bad: "", expected: 3 }]);
  expect(saved).not.toHaveProperty("bad");
  expect(saved).not.toHaveProperty("expected");
  const [counted] = savedItems([], [{ ...newItem("own.b", "left-tip"), kind: "count" }]);
  expect(counted?.expected).toBe(1);
});

test("what the file's schema refuses is a fault at the row and field it was entered in", async () => {
  const entry = await fileOf(qxTar, { items: [rail, newItem("own.c", rail.station)], basis: "" });
  if (!("faults" in entry)) throw new Error("an item without a title was accepted");
  expect(entry.faults.map(({ at }) => at)).toEqual(
    expect.arrayContaining(["items[1].title", "items[1].good", "items[1].why"]),
  );
  const errors = errorsOf(entry.faults) as unknown as {
    items: Record<string, Record<string, { message: string }>>;
  };
  expect(Object.keys(errors.items)).toEqual(["1"]);
  expect(errors.items["1"]?.title?.message).toBe(
    entry.faults.find(({ at }) => at === "items[1].title")?.words,
  );
  expect(firstFault(errors)).toBeTruthy();
});

test("items that are complete become the aircraft's file, and the rest of it stays", async () => {
  const entry = await fileOf(qxTar, { items: [{ ...rail, good: "both pins in" }], basis: "" });
  if (!("data" in entry)) throw new Error(JSON.stringify(entry.faults));
  expect(JSON.parse(entry.data.text)).toEqual({ ...qxTar, ownItems: [{ ...rail, good: "both pins in" }] });
});
