import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import type { PartSheet } from "@cravix/core/parts/part-sheet";
import type { PartUse, TypeComposition } from "@cravix/core/parts/type-composition";
import { compositions, tarrow4 } from "@cravix/demo";
import { shippedLibrary } from "@cravix/library";
import { type TestApp, testApp } from "../../testing/test-app";
import { recomposeTypes } from "./group-library";

// Types that a group composes of the library's parts, and its own sheets.

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const trainer = compositions.find(({ id }) => id === "tarrow-4") as TypeComposition;
const typeOf = async (registration = "QX-TAR"): Promise<AircraftType> =>
  (await (await app.request(`/api/v1/aircraft/${registration}`)).json()).type;
const faultsOf = async (answer: Response) => (await answer.json()).faults as { path: string }[];
const sheet = (id: string) =>
  structuredClone(shippedLibrary().parts.find((part) => part.id === id)) as PartSheet;
const extinguisher = (title: string): PartSheet => {
  const own = sheet("extinguisher");
  return { ...own, items: own.items.map((item) => ({ ...item, title })) };
};

test("a composition is kept as it was written, and its aircraft get what it makes", async () => {
  expect(await typeOf()).toEqual(JSON.parse(JSON.stringify(tarrow4)));
  const versions = await (await app.request("/api/v1/files/aircraft-type/tarrow-4/versions")).json();
  const { version } = versions.items[0];
  const kept = await app.request(`/api/v1/files/aircraft-type/tarrow-4/versions/${version}`);
  expect(await kept.json()).toEqual(JSON.parse(JSON.stringify(trainer)));
});

test("a composition that makes no sound type is refused at the place where it is written", async () => {
  const [first, ...others] = trainer.parts;
  const unknown = { ...trainer, parts: [{ ...first, part: "wings" }, ...others] };
  const answer = await app.request("/api/v1/files?check=true", unknown);
  expect([answer.status, (await faultsOf(answer)).map(({ path }) => path)]).toEqual([
    422,
    expect.arrayContaining(["parts[0].part"]),
  ]);
  // Composed without a fault, but the type would be wrong: a number that is not expected any more.
  const at = trainer.parts.findIndex(({ part }) => part === "control-surface");
  const parts = structuredClone(trainer.parts);
  const { changes } = parts[at] as PartUse;
  const hinges = { ...changes?.["{surface}.hinges"], expected: null };
  parts[at] = { ...(parts[at] as PartUse), changes: { ...changes, "{surface}.hinges": hinges } };
  const wrong = await app.request("/api/v1/files", { ...trainer, parts });
  expect(wrong.status).toBe(422);
  expect((await faultsOf(wrong))[0]?.path).toMatch(/^parts\[\d+\]\.[\w.-]+hinges\.expected$/);
  expect(await typeOf()).toEqual(JSON.parse(JSON.stringify(tarrow4)));
});

test("a group's own sheet replaces the shipped one in all its types, until it is taken back", async () => {
  const answer = await app.request("/api/v1/files", extinguisher("Extinguisher: ours"));
  expect(answer.status).toBe(201);
  for (const registration of ["QX-TAR", "QX-DOV"])
    expect((await typeOf(registration)).items.find(({ id }) => id === "cockpit.extinguisher")?.title).toBe(
      "Extinguisher: ours",
    );
  const back = await app.request("/api/v1/files", sheet("extinguisher"));
  expect(back.status).toBe(201);
  expect(await typeOf()).toEqual(JSON.parse(JSON.stringify(tarrow4)));
});

test("a sheet that a type cannot be composed with is refused, and changes nothing", async () => {
  const other = sheet("extinguisher");
  const [item] = other.items;
  const answer = await app.request("/api/v1/files", {
    ...other,
    items: [{ ...item, station: "hold" }],
  });
  expect([answer.status, JSON.stringify(await faultsOf(answer))]).toEqual([
    409,
    expect.stringContaining("the station hold"),
  ]);
  expect(await typeOf()).toEqual(JSON.parse(JSON.stringify(tarrow4)));
});

test.each<[string, (own: PartSheet) => object, string]>([
  [
    "a parameter that it does not have",
    (own) => ({ ...own, items: own.items.map((item) => ({ ...item, why: "The {side} one." })) }),
    "items[0]",
  ],
  [
    "an option that it does not have",
    (own) => ({ ...own, items: own.items.map((item) => ({ ...item, if: "spare" })) }),
    "items[0].if",
  ],
  [
    "a limit that it does not have",
    (own) => ({ ...own, items: own.items.map((item) => ({ ...item, limitFrom: "gap" })) }),
    "items[0].limitFrom",
  ],
  ["the same item twice", (own) => ({ ...own, items: [...own.items, ...own.items] }), "items[1].id"],
  [
    "a parameter without a kind",
    (own) => ({ ...own, parameters: { side: { what: "Left or right" } } }),
    "parameters.side",
  ],
  [
    "a parameter of two kinds of values",
    (own) => ({ ...own, parameters: { n: { what: "How many", number: { least: 9, most: 2 } } } }),
    "parameters.n.number",
  ],
  ["an unknown field", (own) => ({ ...own, colour: "red" }), ""],
])("a sheet with %s is refused", async (_what, changed, path) => {
  const answer = await app.request("/api/v1/files", changed(sheet("extinguisher")));
  expect(answer.status).toBe(422);
  if (path) expect((await faultsOf(answer)).map((fault) => fault.path)).toContain(path);
});

test("stations come with Cravix, and no file replaces them", async () => {
  const answer = await app.request("/api/v1/files", {
    format: "cravix.stations/1",
    stations: shippedLibrary().stations,
  });
  expect(answer.status).toBe(409);
});

test("types of an older library are composed again at the next start; one that cannot be stays as it was", async () => {
  const { pool, db } = app.database;
  await pool.query(
    "UPDATE aircraft_type SET library = 'sha256:older', body = JSON_SET(body, '$.name', 'Old')",
  );
  await pool.query(
    "UPDATE file_version SET body = JSON_SET(body, '$.parts[0].part', 'gone') WHERE kind = 'aircraft-type' AND file_id = 'dovrane-twin'",
  );
  expect(await recomposeTypes(db)).toEqual([
    expect.objectContaining({ typeId: "dovrane-twin", path: "parts[0].part" }),
  ]);
  expect(await typeOf()).toEqual(JSON.parse(JSON.stringify(tarrow4)));
  expect((await typeOf("QX-DOV")).name).toBe("Old");
});
