import { newId } from "@cravix/contract/client";
import { openDB } from "idb";
import { answersInTime, DeviceError, deviceDatabase, type KeptEvent } from "./database";
import { countToSend, eventsOfPreflight, listOf, refusedEvents } from "./event-log";
import { readNote } from "./notes";
import { pruneSent } from "./prune-sent";

/** Data as recorded by an earlier version, not produced by current code. */
const recorded = (id: string, sync: KeptEvent["sync"], type: string, data: object, reason?: string) => ({
  id,
  preflightId: "0198a000-0000-7000-8000-000000000001",
  sync,
  ...(reason && { reason }),
  event: {
    id,
    type,
    preflightId: "0198a000-0000-7000-8000-000000000001",
    deviceId: "0198a000-0000-7000-8000-0000000000ff",
    crewId: "ines",
    at: "2025-08-13T09:00:00.000Z",
    data,
  },
});
const uuid = (n: number) => `0198a000-0000-7000-8000-${String(n).padStart(12, "0")}`;

test("a device with an earlier version keeps all its data, and sent events stay sent", async () => {
  const before = await openDB("cravix", 1, {
    upgrade(db) {
      const events = db.createObjectStore("events", { keyPath: "id" });
      events.createIndex("byPreflight", "preflightId");
      events.createIndex("bySync", "sync");
      db.createObjectStore("lists", { keyPath: "hash" }).createIndex("bySent", "sent");
      db.createObjectStore("notes");
    },
  });
  const old = [
    recorded(uuid(1), "sent", "preflight.started", {
      registration: "QX-TAR",
      listHash: "sha256:x",
      conditions: [],
    }),
    recorded(uuid(2), "sent", "item.answered", { itemId: "tail.skid", outcome: "sound" }),
    recorded(uuid(3), "to send", "item.answered", { itemId: "tail.rudder", outcome: "sound" }),
    recorded(uuid(4), "refused", "item.answered", { itemId: "x", outcome: "sound" }, "No."),
  ];
  for (const event of old) await before.put("events", event);
  await before.put("lists", { hash: "sha256:x", list: { format: "cravix.list/1" }, sent: 1 });
  await before.put("notes", [{ preflightId: uuid(1), registration: "QX-TAR" }], "open preflights");
  await before.put("notes", "half a sentence", "draft:found");
  const school = { method: "flow then read", hand: "as listed" };
  await before.put("notes", { byRegistration: {}, schools: { "ines:QX-TAR": school } }, "planned");
  before.close();

  await deviceDatabase();
  const events = await eventsOfPreflight(uuid(1));
  expect(events.map((e) => e.id)).toEqual(old.map((e) => e.id));
  // Sent events follow the rules they were sent under; unsent ones follow today's.
  expect(events.map((e) => e.rules)).toEqual([1, 1, undefined, undefined]);
  // Upgraded, so that unsent events can be sent and open preflights continued.
  expect(events.map((e) => [e.streamId, e.type, "outcome" in e.data ? e.data.outcome : undefined])).toEqual([
    [uuid(1), "preflight.started", undefined],
    [uuid(1), "item.answered", "checked"],
    [uuid(1), "item.answered", "checked"],
    [uuid(1), "item.answered", "checked"],
  ]);
  expect(events.some((e) => "preflightId" in e)).toBe(false);
  expect(await readNote("planned")).toEqual({
    byRegistration: {},
    preferences: { "ines:QX-TAR": { method: "flow, then check", hand: "as listed" } },
  });
  expect(await countToSend()).toBe(1);
  expect((await refusedEvents())[0]).toMatchObject({ id: uuid(4), reason: "No." });
  expect(await listOf("sha256:x")).toEqual({ format: "cravix.list/2" });
  // The text behind the hash is unchanged.
  expect((await (await deviceDatabase()).get("lists", "sha256:x"))?.list.format).toBe("cravix.list/1");
  expect(await readNote("open preflights")).toEqual([{ preflightId: uuid(1), registration: "QX-TAR" }]);
  expect(await readNote("draft:found")).toBe("half a sentence");
});

test("old sent data is pruned with its checklist, but never of an open preflight or with events waiting", async () => {
  const db = await deviceDatabase();
  for (const name of ["events", "lists"] as const) await db.clear(name);
  const now = Date.now();
  const preflight = async (sync: KeptEvent["sync"], sentAt: number) => {
    const id = newId(now);
    const put = (type: string, data: object, s: KeptEvent["sync"], at?: number) =>
      db.put("events", {
        ...recorded(newId(now), s, type, data),
        streamId: id,
        ...(at !== undefined && { sentAt: at }),
      } as never);
    await put(
      "preflight.started",
      { registration: "QX-TAR", listHash: `h-${id}`, conditions: [] },
      "sent",
      sentAt,
    );
    await put("item.answered", { itemId: "a", outcome: "sound" }, sync, sync === "sent" ? sentAt : undefined);
    await db.put("lists", { hash: `h-${id}`, list: {} as never, sent: 1 });
    return id;
  };
  const long = now - 30 * 86_400_000;
  const [gone, open, waiting, young] = [
    await preflight("sent", long),
    await preflight("sent", long),
    await preflight("to send", long),
    await preflight("sent", now - 86_400_000),
  ];
  expect(await pruneSent(new Set([open]), now)).toBe(2);
  expect(await eventsOfPreflight(gone)).toEqual([]);
  expect(await listOf(`h-${gone}`)).toBeUndefined();
  for (const id of [open, waiting, young]) {
    expect(await eventsOfPreflight(id)).toHaveLength(2);
    expect(await listOf(`h-${id}`)).toBeDefined();
  }
});

test("a disk that never responds is reported, a responding one is not", async () => {
  await expect(answersInTime(new Promise(() => undefined), 20)).rejects.toThrow(DeviceError);
  await expect(answersInTime(new Promise(() => undefined), 20)).rejects.toThrow("is not responding");
  expect(await answersInTime(Promise.resolve("kept"), 20)).toBe("kept");
});
