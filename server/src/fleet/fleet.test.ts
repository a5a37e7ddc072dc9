import { spawnSync } from "node:child_process";
import { join } from "node:path";
import { contentHash, type EarlierPreflightWithPreferences, newId } from "@cravix/contract";
import { defaultPreferences } from "@cravix/core/aircraft/preferences";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { airfield, group, loadingFiles, qxTar, rules, tarrow4, trainerHistory } from "@cravix/demo";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { putList } from "../events/put-list";

let app: TestApp;
const history = trainerHistory(NOW);
beforeAll(async () => {
  app = await testApp();
  for (const [hash, list] of history.lists) await putList(app.database.db, hash, list, HOME.groupId);
  for (let i = 0; i < history.events.length; i += 500)
    await acceptEvents(app.database.db, history.events.slice(i, i + 500), HOME);
});
afterAll(() => app.close());

const bundle = async () => (await app.request("/api/v1/aircraft/QX-TAR")).json();

describe("the habits of an aircraft's pilots", () => {
  test("are reported with it: the pace and the way of the last preflights, newest first, and the walkarounds of each", async () => {
    const { walks, laps } = (await bundle()) as {
      walks: EarlierPreflightWithPreferences[];
      laps: Record<string, number>;
    };
    expect(walks).toHaveLength(16);
    expect(walks.map((preflight) => preflight.at)).toEqual(
      walks
        .map((preflight) => preflight.at)
        .sort()
        .reverse(),
    );
    const lap = tarrow4.stations.filter((s) => s.phase === "lap").map((s) => s.id);
    for (const preflight of walks) {
      expect(preflight.visits).toEqual(lap);
      expect(Object.values(preflight.stations).every((seconds) => seconds > 0)).toBe(true);
    }
    expect(laps).toEqual({ ines: 10, maren: 3, tomasz: 3 });
  });

  test("are the same when asked again, and change with a preflight that was signed since", async () => {
    const first = await bundle();
    expect((await bundle()).walks).toEqual(first.walks);
    const again = trainerHistory(new Date(NOW.getTime() - 3_600_000));
    const id = again.events.at(-1)?.streamId;
    const last = again.events.filter((e) => e.streamId === id);
    for (const [hash, list] of again.lists) await putList(app.database.db, hash, list, HOME.groupId);
    await acceptEvents(app.database.db, last, HOME);
    expect((await bundle()).walks.length).toBe(17);
  });
});

describe("an aircraft that two people change", () => {
  const changed = (title: string) => ({
    ...qxTar,
    ownItems: qxTar.ownItems.map((item) => ({ ...item, title })),
  });
  const save = (file: object, basis: string) => app.saveFile(file, basis);

  test("is saved on the state it was made from, and not on another", async () => {
    const basis = contentHash(qxTar);
    expect((await save(changed("First"), basis)).status).toBe(201);
    const late = await save(changed("Second"), basis);
    expect(late.status).toBe(412);
    expect((await late.json()).detail).toContain("Someone else changed this aircraft while you were editing");
    expect((await bundle()).aircraft.ownItems[0].title).toBe("First");
    expect((await save(changed("Second"), contentHash(changed("First")))).status).toBe(201);
  });
});

describe("another weighing", () => {
  const report = loadingFiles.find(
    ({ registration }) => registration === "QX-TAR",
  ) as (typeof loadingFiles)[number];
  const heavier = {
    ...report,
    weighing: { ...report.weighing, date: "2026-04-01", emptyKg: report.weighing.emptyKg + 6 },
  };
  const send = (file: object, crewId?: string) =>
    app.request("/api/v1/files", file, "POST", { "cravix-crew": crewId ?? "" });

  test("is put on record by an owner or a mechanic, and by no one else", async () => {
    expect((await send(report)).status).toBe(403);
    expect((await send(report, "yuki")).status).toBe(201);
    for (const who of [undefined, "tomasz", "ines", "nobody"]) {
      const refused = await send(heavier, who);
      expect([who, refused.status]).toEqual([who, 403]);
      expect((await refused.json()).detail).toContain(
        "a mechanic, an owner or an administrator can enter a weighing",
      );
    }
    expect((await bundle()).loading.weighing).toEqual(report.weighing);
    expect((await send(heavier, "kofi")).status).toBe(201);
    expect((await bundle()).loading.weighing).toEqual(heavier.weighing);
    // Restored by the owner for the other tests.
    expect((await send(report, "yuki")).status).toBe(201);
  });

  test("is none where the rest of the file changes and the weighing does not", async () => {
    const other = { ...report, datum: `${report.datum}, measured again` };
    const refused = await send(other, "ines");
    expect([refused.status, (await refused.json()).detail]).toEqual([
      403,
      "Only a mechanic, an owner or an administrator can add or change an aircraft, its type, limits or due items. Inês Valadares is a pilot.",
    ]);
    expect((await send(other, "kofi")).status).toBe(201);
    expect((await send(report, "kofi")).status).toBe(201);
  });
});

test("a file of the version before is taken and given out in today's words, and goes on from the state that was given out", async () => {
  const { ownItems, ...rest } = qxTar;
  const item = { ...ownItems[0], title: "Left seat rail: rock it hard", school: "surfaces moved" };
  const { part: _part, topic: _topic, ...old } = item;
  const before = { ...rest, format: "cravix.aircraft/1", registration: "QX-OLD", ownItems: [old] };
  expect((await app.request("/api/v1/files", before)).status).toBe(201);
  // As recorded before there was a newer version.
  for (const table of ["aircraft", "file_version"])
    await app.database.pool.query(
      `UPDATE ${table} SET body = ? WHERE ${table === "aircraft" ? "registration" : "file_id"} = 'QX-OLD'`,
      [JSON.stringify(before)],
    );
  await app.database.pool.query("UPDATE file_version SET hash = ? WHERE file_id = 'QX-OLD'", [
    contentHash(before),
  ]);
  const { aircraft: given } = await (await app.request("/api/v1/aircraft/QX-OLD")).json();
  expect(given).toMatchObject({
    format: "cravix.aircraft/2",
    ownItems: [{ part: "Left seat rail", method: "surfaces moved" }],
  });
  const changed = { ...given, story: "Changed" };
  expect((await app.saveFile({ ...changed, story: "Not from it" }, contentHash(qxTar))).status).toBe(412);
  expect((await app.saveFile(changed, contentHash(given))).status).toBe(201);
});

test("a file can be checked without being put on record", async () => {
  const type = { ...tarrow4, id: "only-checked", name: "Only Checked" };
  const good = await app.request("/api/v1/files?check=true", type);
  expect([good.status, await good.json()]).toEqual([200, { format: "cravix.aircraft-type/2" }]);
  const bad = await app.request("/api/v1/files?check=true", { ...type, items: [{ id: "a" }] });
  expect(bad.status).toBe(422);
  expect((await bad.json()).faults.length).toBeGreaterThan(3);
  const aircraft = { ...qxTar, registration: "QX-CHK", typeId: "only-checked" };
  expect((await app.request("/api/v1/files", aircraft)).status).toBe(409);
});

describe("a checklist on paper", () => {
  const halden = group.find((g) => g.aircraft.registration === "QX-HLD");
  if (!halden) throw new Error("no six-seater");
  const list = composeList({
    ...halden,
    conditions: ["frost", "night"],
    openDiscrepancies: [],
    airfield,
    rules,
    preferences: defaultPreferences(halden.type.recommended),
  });

  /** Text of each page, extracted by an independent library. */
  function pages(bytes: ArrayBuffer): string[] {
    const run = spawnSync(process.execPath, [join(__dirname, "..", "..", "testing", "read-pdf.mjs")], {
      input: Buffer.from(bytes),
      encoding: "utf8",
    });
    expect(run.stderr).toBe("");
    return JSON.parse(run.stdout);
  }

  test("has every line, its box, the day's conditions, the caution, and numbered pages", async () => {
    const response = await app.request("/api/v1/lists/pdf", list);
    expect(response.status).toBe(200);
    expect(response.headers.get("content-type")).toBe("application/pdf");
    const text = pages(await response.arrayBuffer());
    const whole = text.join(" ");
    expect(whole).toContain("Today: frost, night");
    expect(whole).toContain("The pilot in command decides.");
    for (const item of list.items) expect(whole).toContain(item.title.replace(/\s+/g, " ").slice(0, 28));
    expect(text.length).toBeGreaterThan(3);
    text.forEach((page, i) => {
      expect(page).toContain(`page ${i + 1} of ${text.length}`);
    });
  });

  test("is rejected where it is no list, at its paths", async () => {
    const response = await app.request("/api/v1/lists/pdf", { ...list, items: [{ id: "a" }] });
    expect(response.status).toBe(422);
    const { faults } = await response.json();
    expect(faults.map((fault: { path: string }) => fault.path)).toContain("items[0].title");
    expect((await app.request("/api/v1/lists/pdf", "{")).status).toBe(400);
  });
});

describe("the group at a glance", () => {
  const fleet = async () =>
    (await (await app.request("/api/v1/aircraft")).json()) as {
      aircraft: {
        registration: string;
        openDiscrepancies: number;
        open: { text: string; grade: string }[];
        fluids: {
          fuel?: { litres: number; measured: number; tanks: number };
          oil: { qt: number; minimumQt?: number }[];
        };
        lastFlown: { at: string; crewId: string } | null;
      }[];
    };

  test("has what is open, fuel and oil as last measured, and the last flight of each aircraft", async () => {
    const tar = (await fleet()).aircraft.find((a) => a.registration === "QX-TAR");
    expect(tar?.open).toHaveLength(tar?.openDiscrepancies ?? -1);
    expect(tar?.open[0]?.text).toContain("creep mark");
    expect(tar?.fluids.fuel).toMatchObject({ measured: 2, tanks: 2 });
    const last = (key: string) =>
      ((bundleNow.lastReadings as { key: string; value: number }[]) ?? []).find((r) => r.key === key)?.value;
    const bundleNow = (await bundle()) as { lastReadings: unknown };
    expect(tar?.fluids.oil[0]?.qt).toBe(last("oil.level"));
    const flown = history.events.filter((e) => e.type === "verdict.signed" && e.data.decision === "fly");
    expect(flown.map((e) => e.at)).toContain(tar?.lastFlown?.at);
  });

  test("one that stops is reported first, however many small ones there are", async () => {
    const { db } = app.database;
    const [first] = history.events.filter((e) => e.type === "discrepancy.opened");
    if (first?.type !== "discrepancy.opened") throw new Error("the demo has no discrepancy");
    const many = Array.from({ length: 40 }, (_, i) => {
      const at = NOW.getTime() - 60_000 + i;
      const id = newId(at);
      return {
        ...first,
        id,
        streamId: id,
        at: new Date(at).toISOString(),
        data: {
          ...first.data,
          itemId: undefined,
          cause: undefined,
          discrepancyId: id,
          grade: i === 39 ? ("stop" as const) : ("note" as const),
          text: i === 39 ? "The last one stops" : `A small one, number ${i}`,
        },
      };
    });
    await acceptEvents(db, JSON.parse(JSON.stringify(many)), HOME);
    const tar = (await fleet()).aircraft.find((a) => a.registration === "QX-TAR");
    expect(tar?.openDiscrepancies).toBeGreaterThan(40);
    expect(tar?.open).toHaveLength(20);
    expect(tar?.open[0]).toMatchObject({ text: "The last one stops", grade: "stop" });
  });
});
