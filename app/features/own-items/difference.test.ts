import type { OwnItem } from "@cravix/core/aircraft/aircraft-type";
import { qxTar, tarrow4 } from "@cravix/demo";
import { isChanged, ownDifference } from "./difference";

const [rail] = qxTar.ownItems;
if (!rail) throw new Error("the trainer has an item of its own");
const screw: OwnItem = { ...rail, id: "own.screw", station: "right-tip", title: "Right tip: new screw" };
const compare = (...after: OwnItem[]) => ownDifference(tarrow4, qxTar.ownItems, after);

test("nothing changed is nothing to save, and the type's own items are counted as they are", () => {
  expect(isChanged(compare(rail))).toBe(false);
  expect(compare(rail).typeItems).toBe(tarrow4.items.length);
});

test("an item added, changed or retired is reported as that, and as nothing else", () => {
  expect(compare(rail, screw)).toMatchObject({ added: [screw], changed: [], retired: [] });
  const other = { ...rail, good: "both pins in" };
  expect(compare(other)).toMatchObject({ added: [], changed: [{ before: rail, after: other }], retired: [] });
  const retired = { ...rail, retired: "2026-05-01" };
  expect(compare(retired)).toMatchObject({ added: [], changed: [], retired: [retired] });
  expect(isChanged(compare(retired))).toBe(true);
});

test("one that was retired before is no change, and brought back it is asked again", () => {
  const retired = { ...rail, retired: "2026-04-01" };
  expect(isChanged(ownDifference(tarrow4, [retired], [retired]))).toBe(false);
  const back = ownDifference(tarrow4, [retired], [rail]);
  expect(back).toMatchObject({ added: [], changed: [], retired: [], broughtBack: [rail] });
  expect(isChanged(back)).toBe(true);
});
