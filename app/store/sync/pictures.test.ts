import { bytesHash } from "@cravix/contract/content-hash";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { deviceDatabase } from "../../device/log/database";
import { countToSend, saveEvents } from "../../device/log/event-log";
import { dropPicture, fetchPictures, pictureOf } from "../../device/photographs/stored-photos";
import { sendAll } from "../../device/sync/sync";

/** A photo and its event on the way from the device to the server. */

const bytes = (n: number) => new Uint8Array([255, 216, n]);
let asked: string[] = [];
let refuse: (path: string) => number | undefined = () => undefined;

beforeEach(async () => {
  asked = [];
  refuse = () => undefined;
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes", "photographs"] as const) await db.clear(name);
  globalThis.fetch = (async (input: string, init?: RequestInit) => {
    const path = String(input);
    asked.push(`${init?.method ?? "GET"} ${path.replace(/sha256.+/, "picture")}`);
    const status = refuse(path);
    if (status === 0) throw new TypeError("no network");
    if (status)
      return new Response(JSON.stringify({ status, title: "No", detail: "It is none.", type: "x" }), {
        status,
        headers: { "content-type": "application/problem+json" },
      });
    if (path.includes("photographs") && init?.method !== "PUT")
      return new Response(bytes(9), { headers: { "content-type": "image/webp" } });
    if (path.includes("photographs")) return new Response(null, { status: 204 });
    const { events } = JSON.parse(String(init?.body)) as { events: PreflightEvent[] };
    return new Response(JSON.stringify({ taken: events.length, repeated: 0, refused: [] }), {
      headers: { "content-type": "application/json" },
    });
  }) as typeof fetch;
});

const id = (n: number) => `0198a000-0000-7000-8000-${String(n).padStart(12, "0")}`;
const hashOf = (n: number) => bytesHash(bytes(n));
async function draft(n: number) {
  await (await deviceDatabase()).put("photographs", {
    hash: hashOf(n),
    bytes: bytes(n).buffer,
    type: "image/webp",
    state: "draft",
    at: n,
  });
}
const photographed = (n: number) =>
  ({
    id: id(n),
    type: "discrepancy.photographed",
    streamId: id(1),
    deviceId: id(99),
    crewId: "ines",
    at: "2026-05-01T09:00:00.000Z",
    data: { discrepancyId: id(1), photograph: hashOf(n), width: 4, height: 3 },
  }) as PreflightEvent;
const stateOf = async (n: number) => (await (await deviceDatabase()).get("photographs", hashOf(n)))?.state;

test("a photo is sent after its discrepancy is on record; one never logged is never sent", async () => {
  await draft(2);
  await draft(3);
  expect(await countToSend()).toBe(0);
  await saveEvents([photographed(2)]);
  expect(await countToSend()).toBe(2);
  refuse = (path) => (path.includes("events") ? 503 : undefined);
  expect((await sendAll()).stopped?.why).toBe("busy");
  expect(asked).toEqual(["POST /api/v1/events"]);
  refuse = () => undefined;
  asked = [];
  expect(await sendAll()).toEqual({ sent: 2, refused: 0 });
  expect(asked).toEqual(["POST /api/v1/events", "PUT /api/v1/photographs/picture"]);
  expect([await stateOf(2), await stateOf(3), await countToSend()]).toEqual(["sent", "draft", 0]);
  // Sent once.
  asked = [];
  await sendAll();
  expect(asked).toEqual([]);
});

test("a photo the server rejects stays with the reason and delays no other; offline all wait", async () => {
  for (const n of [2, 3]) await draft(n);
  await saveEvents([photographed(2), photographed(3)]);
  refuse = (path) => (path.includes("photographs") ? 0 : undefined);
  expect((await sendAll()).stopped?.why).toBe("not reached");
  expect([await stateOf(2), await stateOf(3)]).toEqual(["to send", "to send"]);
  refuse = (path) =>
    path.includes(hashOf(2)) || path.includes(encodeURIComponent(hashOf(2))) ? 422 : undefined;
  expect(await sendAll()).toEqual({ sent: 1, refused: 1 });
  expect([await stateOf(2), await stateOf(3)]).toEqual(["refused", "sent"]);
  expect((await (await deviceDatabase()).get("photographs", hashOf(2)))?.reason).toBe("It is none.");
});

test("photos of other people are fetched once and are available offline", async () => {
  await fetchPictures([hashOf(9)]);
  refuse = () => 0;
  asked = [];
  expect((await pictureOf(hashOf(9)))?.type).toBe("image/webp");
  expect(asked).toEqual([]);
  expect(await pictureOf(hashOf(8))).toBeUndefined();
});

test("a photo that was not logged is removed; a logged one stays", async () => {
  for (const n of [2, 3]) await draft(n);
  await saveEvents([photographed(2)]);
  await dropPicture(hashOf(2));
  await dropPicture(hashOf(3));
  expect([await stateOf(2), await stateOf(3)]).toEqual(["to send", undefined]);
});
