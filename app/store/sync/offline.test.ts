import { newId } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { tarrow4 } from "@cravix/demo";
import { deviceDatabase } from "../../device/log/database";
import {
  allEvents,
  countToSend,
  eventsOfPreflight,
  listsToSend,
  refusedEvents,
  sendRefusedAgain,
} from "../../device/log/event-log";
import { trainerBundle } from "../../testing/trainer-bundle";
import { openPreflight } from "../preflight/open-preflight";
import { record, recordAll } from "../preflight/record";
import { beginPreflight } from "../preflight/start-preflight";
import { localOpenDiscrepancies } from "../preflight/unsynced-events";
import { restore } from "../restore";
import { planned } from "../state/planned-slice";
import { preflightOpened, selectPreflight } from "../state/preflight-slice";
import { serverApi } from "../state/server-api";
import { crewPicked } from "../state/session-slice";
import { sendAgain } from "../state/sync-actions";
import { createStore } from "../store";

const bundle = trainerBundle;
const server = {
  reached: false,
  refuse: new Set<string>(),
  taken: new Map<string, PreflightEvent>(),
  lists: 0,
};
const settle = async (done: () => boolean | Promise<boolean>) => {
  for (let i = 0; i < 6000 && !(await done()); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(await done()).toBe(true);
};

beforeEach(async () => {
  Object.assign(server, { reached: false, refuse: new Set(), taken: new Map(), lists: 0 });
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
  globalThis.fetch = (async (_path: string, init?: RequestInit) => {
    if (!server.reached) throw new TypeError("no network");
    if (init?.method === "PUT") {
      server.lists++;
      return new Response(null, { status: 204 });
    }
    const { events } = JSON.parse(String(init?.body)) as { events: PreflightEvent[] };
    const refused = events.flatMap((e, index) =>
      server.refuse.has(e.type) ? [{ id: e.id, index, reason: "because" }] : [],
    );
    for (const e of events) if (!server.refuse.has(e.type)) server.taken.set(e.id, e);
    return new Response(JSON.stringify({ taken: events.length - refused.length, repeated: 0, refused }), {
      status: 200,
      headers: { "content-type": "application/json" },
    });
  }) as typeof fetch;
});

// Send what is pending, so that no retry continues after the tests.
afterAll(() => {
  server.reached = true;
});

async function beginOne() {
  const store = createStore();
  await restore(store.dispatch);
  store.dispatch(crewPicked("ines"));
  await store.dispatch(serverApi.util.upsertQueryData("bundle", "QX-TAR", bundle));
  store.dispatch(planned({ registration: "QX-TAR", conditions: ["night"] }));
  const id = await store.dispatch(beginPreflight("QX-TAR"));
  const kept = () => settle(() => store.getState().preflight.unkept.length === 0);
  const answer = (itemId: string) =>
    store.dispatch(record(id, "item.answered", { itemId, outcome: "checked" }));
  return { store, id, kept, answer };
}

test("an answer counts as saved only once it is on disk", async () => {
  const { store, id, kept, answer } = await beginOne();
  await kept();
  const event = answer("approach.stance");
  // Shown immediately, but not yet called saved.
  expect(selectPreflight(store.getState())?.state.answers["approach.stance"]).toBeDefined();
  expect(store.getState().preflight.unkept.map((e) => e.id)).toEqual([event.id]);
  await kept();
  expect((await eventsOfPreflight(id)).map((e) => e.id)).toContain(event.id);
});

test("related events are stored together, in order, in one transaction", async () => {
  const { store, id, kept, answer } = await beginOne();
  await kept();
  const strokes = jest.spyOn(IDBDatabase.prototype, "transaction");
  const made = store.dispatch(
    recordAll(id, [
      {
        type: "reading.taken",
        data: { itemId: "magneto.base", key: "magneto.base", value: 1800, unit: "rpm" },
      },
      { type: "item.answered", data: { itemId: "approach.stance", outcome: "checked" } },
    ]),
  );
  await kept();
  expect(strokes.mock.calls.filter(([, mode]) => mode === "readwrite")).toHaveLength(1);
  strokes.mockRestore();
  expect((await eventsOfPreflight(id)).slice(-2).map((e) => e.id)).toEqual(made.map((e) => e.id));
  expect((made[0]?.id ?? "") < (made[1]?.id ?? "")).toBe(true);
  expect(answer("approach.chocks").id > (made[1]?.id ?? "")).toBe(true);
  expect(store.dispatch(recordAll(id, []))).toEqual([]);
});

test("stored events wait to be sent, and count as sent only after sending", async () => {
  const { store, answer, kept } = await beginOne();
  server.reached = true;
  await kept();
  // An earlier test's run may be in progress: retry until this store's is done.
  await settle(() => {
    store.dispatch(sendAgain());
    return server.taken.size === 1 && store.getState().sync.toSend === 0;
  });
  // Wait until no run is in progress.
  await new Promise((resolve) => setTimeout(resolve, 700));
  const event = answer("approach.stance");
  await kept();
  expect(server.taken.has(event.id)).toBe(false);
  expect(store.getState().sync.toSend).toBe(1);
  await settle(() => store.getState().sync.toSend === 0);
  expect(server.taken.has(event.id)).toBe(true);
});

test("offline everything waits; back online everything arrives once, the checklist first", async () => {
  const { store, answer, kept } = await beginOne();
  for (const item of tarrow4.items.slice(0, 20)) answer(item.id);
  await kept();
  expect(await countToSend()).toBe(21);
  await settle(() => store.getState().sync.server === "not reached");
  server.reached = true;
  store.dispatch(sendAgain());
  await settle(async () => (await countToSend()) === 0);
  expect(server.taken.size).toBe(21);
  expect(server.lists).toBe(1);
  expect(await listsToSend()).toEqual([]);
  expect([...server.taken.keys()].sort()).toEqual((await allEvents()).map((e) => e.id).sort());
});

test("a rejected event stays on the device with its reason, is shown, and can be sent again", async () => {
  const { store, answer } = await beginOne();
  server.reached = true;
  server.refuse.add("item.answered");
  answer("approach.stance");
  // An earlier test's run may be in progress: retry until this store's is done.
  await settle(() => {
    store.dispatch(sendAgain());
    return store.getState().sync.refused.length === 1;
  });
  expect(store.getState().sync.refused[0]).toMatchObject({ type: "item.answered", reason: "because" });
  expect(await refusedEvents()).toHaveLength(1);
  server.refuse.clear();
  await sendRefusedAgain();
  await settle(() => {
    store.dispatch(sendAgain());
    return store.getState().sync.refused.length === 0 && server.taken.size === 2;
  });
});

test("restarting the app finds the preflight where it was", async () => {
  const { id, answer, kept, store } = await beginOne();
  answer("approach.stance");
  await kept();
  const before = selectPreflight(store.getState());
  const again = createStore();
  await restore(again.dispatch);
  expect(again.getState().session).toMatchObject({
    crewId: "ines",
    deviceId: store.getState().session.deviceId,
  });
  expect(again.getState().preflight.open).toEqual([{ preflightId: id, registration: "QX-TAR" }]);
  expect(await again.dispatch(openPreflight(id))).toBe(true);
  expect(selectPreflight(again.getState())).toEqual(before);
  expect(await again.dispatch(openPreflight(newId(0)))).toBe(false);
});

test("a full disk is reported, nothing is lost, and the next answer saves the waiting one too", async () => {
  const { store, answer, kept, id } = await beginOne();
  await kept();
  const put = IDBObjectStore.prototype.put;
  IDBObjectStore.prototype.put = () => {
    throw new DOMException("full", "QuotaExceededError");
  };
  const lost = answer("approach.stance");
  await settle(() => store.getState().preflight.keepError !== null);
  expect(store.getState().preflight.keepError).toContain("full");
  expect(store.getState().preflight.unkept.map((e) => e.id)).toEqual([lost.id]);
  IDBObjectStore.prototype.put = put;
  answer("approach.ground");
  await kept();
  expect(store.getState().preflight.keepError).toBeNull();
  expect((await eventsOfPreflight(id)).map((e) => e.id)).toContain(lost.id);
});

test("a clock set back does not reorder the answers", async () => {
  const { store, answer, kept, id } = await beginOne();
  const burst = tarrow4.items.slice(2, 40).map((item) => answer(item.id).id);
  expect([...burst].sort()).toEqual(burst);
  const first = answer("approach.stance");
  const clock = jest.spyOn(Date, "now").mockReturnValue(Date.now() - 3_600_000);
  const second = answer("approach.ground");
  clock.mockRestore();
  expect(second.id > first.id).toBe(true);
  expect(Date.parse(second.at)).toBeLessThan(Date.parse(first.at));
  expect(selectPreflight(store.getState())?.state.cursor?.itemId).toBe("approach.ground");
  // And stored, as the next start reads it.
  await kept();
  const there = (await eventsOfPreflight(id)).map((e) => e.id);
  expect(there.indexOf(second.id)).toBe(there.indexOf(first.id) + 1);
  expect(there).toEqual([...there].sort());
});

test("a discrepancy found on this device is shown to the next pilot before it is sent", async () => {
  const { store, id, kept } = await beginOne();
  const { id: discrepancyId } = store.dispatch(
    record(id, "discrepancy.opened", {
      registration: "QX-TAR",
      stationId: "tail",
      itemId: "tail.light",
      text: "Lens cracked",
      grade: "note",
    }),
  );
  await kept();
  const open = localOpenDiscrepancies(bundle, await allEvents(), [
    { id: "ines", name: "Inês Valadares", role: "pilot" },
  ]);
  expect(open).toEqual([
    expect.objectContaining({ id: discrepancyId, stationId: "tail", openedBy: "Inês Valadares" }),
  ]);
  const known = {
    ...bundle,
    openDiscrepancies: [{ ...(open[0] as (typeof open)[number]), id: "server", measure: "3 mm" }],
  };
  store.dispatch(
    record(id, "discrepancy.observed", {
      discrepancyId: "server",
      itemId: "known:server",
      state: "grown",
      measure: "5 mm",
    }),
  );
  await kept();
  expect(localOpenDiscrepancies(known, await allEvents(), []).find((d) => d.id === "server")?.measure).toBe(
    "5 mm",
  );
});

test("reopening a preflight does not lose events still being written", async () => {
  const { store, id, answer } = await beginOne();
  const event = answer("approach.stance");
  const list = selectPreflight(store.getState())?.list;
  if (!list) throw new Error("no list");
  store.dispatch(preflightOpened({ id, list, events: [] }));
  expect(store.getState().preflight.events.map((e) => e.id)).toContain(event.id);
});
