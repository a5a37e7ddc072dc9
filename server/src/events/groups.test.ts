import { newId } from "@cravix/contract";
import { scenarioFiles } from "@cravix/demo";
import { smallPreflight } from "../../testing/make-events";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { readBundle, readFleet, readPreflights } from "../fleet/read-fleet";
import { readVersions } from "../fleet/read-versions";
import { saveFile, writeFile } from "../fleet/write-file";
import { readAllFluids } from "../fluids/read-fluids";
import { importFluids } from "../fluids/write-fluids";
import { acceptEvents } from "./accept-events";
import { checkProjections } from "./check-projections";

// Two groups on one server with the same files: same registrations, same people, separate records.
const OTHER = "other";
let app: TestApp;
beforeAll(async () => {
  app = await testApp();
  for (const file of scenarioFiles)
    await writeFile(app.database.db, file, { groupId: OTHER, by: "operator" });
});
afterAll(() => app.close());

const fluids = async (groupId: string) => {
  const rows = [];
  for await (const part of readAllFluids(app.database.db, "QX-TAR", "fuel", groupId)) rows.push(...part);
  return rows;
};
const differences = async () => (await checkProjections(app.database.db)).differences;

test("one group sees nothing of another", async () => {
  const { db } = app.database;
  const before = await readBundle(db, "QX-TAR", OTHER);
  const { events, streamId } = smallPreflight();
  expect(await acceptEvents(db, events, HOME)).toMatchObject({ taken: 4, refused: [] });
  expect(await readBundle(db, "QX-TAR", OTHER)).toEqual(before);
  expect(before).toMatchObject({ lastReadings: [], openDiscrepancies: [], recentPreflights: [] });
  expect((await readPreflights(db, { groupId: HOME.groupId, limit: 10 })).map((p) => p.id)).toContain(
    streamId,
  );
  expect(await readPreflights(db, { groupId: OTHER, limit: 10 })).toEqual([]);
  const fleet = await readFleet(db, OTHER);
  expect(fleet.aircraft.find((a) => a.registration === "QX-TAR")).toMatchObject({ openDiscrepancies: 0 });
  expect((await readFleet(db, HOME.groupId)).aircraft.find((a) => a.registration === "QX-TAR")).toMatchObject(
    {
      openDiscrepancies: 1,
    },
  );
  expect(await differences()).toEqual([]);
});

test("nobody writes into another group's preflight, reuses its event's id, or claims its discrepancy", async () => {
  const { db } = app.database;
  const { events, write, streamId, discrepancyId } = smallPreflight();
  await acceptEvents(db, events, HOME);
  const mine = await readBundle(db, "QX-TAR", HOME.groupId);

  const intoIt = write("item.answered", { itemId: "tail.skid", outcome: "checked" });
  expect(await acceptEvents(db, [intoIt], { groupId: OTHER, now: NOW })).toMatchObject({
    taken: 0,
    refused: [{ id: intoIt.id, field: "streamId" }],
  });
  // An event id on record in the other group, within an own preflight.
  const theirs = smallPreflight();
  const [start, , reading] = theirs.events;
  const sameId = { ...reading, id: events[2]?.id };
  expect(await acceptEvents(db, [start, sameId], { groupId: OTHER, now: NOW })).toMatchObject({
    taken: 1,
    refused: [{ id: events[2]?.id, field: "id" }],
  });
  // About its discrepancy: opened, observed, signed off.
  const about = [
    theirs.write("discrepancy.opened", { ...openingOf(events), discrepancyId }),
    theirs.write("discrepancy.observed", { discrepancyId, itemId: "left-gear.tyre", state: "gone" }),
    { ...theirs.write("discrepancy.closed", { discrepancyId, how: "Tyre changed" }), crewId: "teo" },
    theirs.write("discrepancy.withdrawn", { discrepancyId }),
  ];
  await acceptEvents(db, about, { groupId: OTHER, now: NOW });
  expect(await readBundle(db, "QX-TAR", HOME.groupId)).toEqual(mine);
  expect((await readBundle(db, "QX-TAR", OTHER))?.openDiscrepancies).toEqual([]);
  expect(mine?.openDiscrepancies.map((d) => d.id)).toContain(discrepancyId);
  expect(mine?.recentPreflights.map((p) => p.id)).toContain(streamId);
  expect(await differences()).toEqual([]);
});

const openingOf = (events: ReturnType<typeof smallPreflight>["events"]) => {
  const opening = events.find((event) => event.type === "discrepancy.opened");
  if (opening?.type !== "discrepancy.opened") throw new Error("nothing was opened");
  return opening.data;
};

test("the same fuel log entry can be in both, and file versions belong to each group", async () => {
  const { db } = app.database;
  const line = {
    registration: "QX-TAR",
    fluid: "fuel",
    entry: "added",
    part: "left",
    at: "2026-04-30T08:00:00.000Z",
    amount: 40,
    unit: "L",
  } as const;
  const before = [(await fluids("home")).length, (await fluids(OTHER)).length] as const;
  expect(await importFluids(db, [line], HOME.groupId)).toBe(1);
  expect(await importFluids(db, [line], OTHER)).toBe(1);
  expect(await importFluids(db, [line], OTHER)).toBe(0);
  expect([(await fluids("home")).length, (await fluids(OTHER)).length]).toEqual([
    before[0] + 1,
    before[1] + 1,
  ]);

  const file = scenarioFiles.find((one) => "registration" in one && one.registration === "QX-TAR");
  if (!file || !("ownItems" in file)) throw new Error("the demo has no QX-TAR");
  const changed = { ...file, note: undefined, name: `Changed ${newId(0)}` };
  const own = (await readVersions(db, "home", "aircraft", "QX-TAR")).length;
  await saveFile(db, changed as typeof file, { groupId: OTHER, by: "operator", now: NOW });
  expect(await readVersions(db, "home", "aircraft", "QX-TAR")).toHaveLength(own);
  expect(await readVersions(db, OTHER, "aircraft", "QX-TAR")).toHaveLength(2);
  expect((await readBundle(db, "QX-TAR", HOME.groupId))?.aircraft).toEqual(
    (await readBundle(db, "QX-TAR", "home"))?.aircraft,
  );
});
