import { readdirSync } from "node:fs";
import { join } from "node:path";
import { SHEETS } from "./sheets";
import { shippedLibrary } from "./shipped-library";

const { parts, stations } = shippedLibrary();

test("the index has every part sheet, under its own id", () => {
  const files = readdirSync(join(__dirname, "..", "parts")).map((name) => name.replace(/\.json$/, ""));
  expect(Object.keys(SHEETS).sort()).toEqual(files.sort());
  for (const [name, sheet] of Object.entries(SHEETS)) expect(sheet).toMatchObject({ id: name });
});

test("every item has its place in the order of a station", () => {
  const ordered = new Set(stations.flatMap(({ order }) => order));
  const items = new Set(
    parts.flatMap(({ items: own }) => own.map(({ id }) => id.replace(/^\{\w+\}|-\{\w+\}/g, ""))),
  );
  expect(ordered.size).toBeGreaterThan(200);
  // A station names no item that is in no sheet: compared by what comes after the place.
  const ends = new Set([...items].map((id) => id.split(".").slice(1).join(".")));
  const strange = [...ordered].filter(
    (id) => !ends.has(id.split(".").slice(1).join(".")) && !/magneto-|gauge/.test(id),
  );
  expect(strange).toEqual([]);
});

test("cards that items name are cards of their station, or plain numbers", () => {
  for (const { items } of parts)
    for (const { card, id } of items)
      expect([id, card ?? "1"]).toEqual([id, expect.stringMatching(/^(\d|cups)$/)]);
});
