import { readdirSync } from "node:fs";
import { join } from "node:path";
import { SHEETS } from "./sheets";
import { shippedLibrary } from "./shipped-library";

const { parts } = shippedLibrary();

test("the index has every part sheet, under its own id", () => {
  const files = readdirSync(join(__dirname, "..", "parts")).map((name) => name.replace(/\.json$/, ""));
  expect(Object.keys(SHEETS).sort()).toEqual(files.sort());
  for (const [name, sheet] of Object.entries(SHEETS)) expect(sheet).toMatchObject({ id: name });
});

test("cards that items name are cards of their station, or plain numbers", () => {
  for (const { items } of parts)
    for (const { card, id } of items)
      expect([id, card ?? "1"]).toEqual([id, expect.stringMatching(/^(\d|cups)$/)]);
});
