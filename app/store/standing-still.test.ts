import { newId } from "@cravix/contract/client";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { deviceDatabase } from "../device/log/database";
import {
  allEvents,
  countToSend,
  eventsBeyond,
  eventsOfPreflight,
  refusedEvents,
  saveEvents,
} from "../device/log/event-log";
import { readNote, saveNote } from "../device/log/notes";
import { saveSent } from "../device/log/store-sent";
import { sendAll } from "../device/sync/sync";
import { trainerBundle } from "../testing/trainer-bundle";
import { openPreflight } from "./preflight/open-preflight";
import { changeOpenPreflights } from "./preflight/open-preflights";
import { type EventInput, record, recordOfAircraft } from "./preflight/record";
import { signPreflight } from "./preflight/sign-preflight";
import { beginPreflight } from "./preflight/start-preflight";
import { restore } from "./restore";
import { selectPreflight } from "./state/preflight-slice";
import { serverApi } from "./state/server-api";
import { crewPicked } from "./state/session-slice";
import { createStore } from "./store";
import { correctClock } from "./sync/correct-clock";

const bundle = trainerBundle;

/** The server's next response; by default it accepts everything. */
type Answer = (path: string, init?: RequestInit) => Response;
const JSON_TYPE = { "content-type": "application/json" };
const taken = (refused: object[] = []) =>
  new Response(JSON.stringify({ taken: 1, repeated: 0, refused }), { status: 200, headers: JSON_TYPE });
const no = (status: number, headers: Record<string, string> = {}) =>
  new Response(JSON.stringify({ status, title: "No", detail: `No: ${status}.`, type: "x" }), {
    status,
    headers: { "content-type": "application/problem+json", ...headers },
  });
let answer: Answer;
let asked: { path: string; events: PreflightEvent[] }[] = [];

const settle = async (done: () => boolean | Promise<boolean>) => {
  for (let i = 0; i < 300 && !(await done()); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(await done()).toBe(true);
};

beforeEach(async () => {
  answer = () => {
    throw new TypeError("no network");
  };
  asked = [];
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
  globalThis.fetch = (async (path: string, init?: RequestInit) => {
    const response = answer(String(path), init);
    const { events = [] } = init?.body ? JSON.parse(String(init.body)) : {};
    asked.push({ path: String(path), events });
    return response;
  }) as typeof fetch;
});

async function device() {
  const store = createStore();
  await restore(store.dispatch);
  store.dispatch(crewPicked("ines"));
  await store.dispatch(serverApi.util.upsertQueryData("bundle", "QX-TAR", bundle));
  return store;
}
async function begun() {
  const store = await device();
  const id = await store.dispatch(beginPreflight("QX-TAR"));
  await settle(() => store.getState().sync.server === "not reached");
  return { store, id };
}
const answered = (store: ReturnType<typeof createStore>, id: string, itemId: string) =>
  store.dispatch(record(id, "item.answered", { itemId, outcome: "checked" }));
const kept = (store: ReturnType<typeof createStore>) =>
  settle(() => store.getState().preflight.unkept.length === 0);

describe("events rejected by the server", () => {
  test("a rejected checklist stays here, and the answers are sent all the same", async () => {
    const { store, id } = await begun();
    answered(store, id, "approach.stance");
    await kept(store);
    answer = (path) => (path.includes("/lists/") ? no(422) : taken());
    // The automatic run may have been first: what counts is that nothing is pending or rejected.
    expect(await sendAll()).toMatchObject({ refused: 0 });
    await settle(async () => (await countToSend()) === 0);
    expect(asked.flatMap(({ events }) => events)).toHaveLength(2);
    const [list] = await (await deviceDatabase()).getAll("lists");
    expect(list).toMatchObject({ sent: 2, reason: "No: 422." });
  });

  test.each([
    [401, "sign in"],
    [403, "not allowed"],
    [429, "busy"],
    [500, "busy"],
    [503, "busy"],
  ] as const)("%i keeps everything in the queue: %s", async (status, why) => {
    const { store, id } = await begun();
    answered(store, id, "approach.stance");
    await kept(store);
    answer = () => no(status, status === 429 ? { "retry-after": "7" } : {});
    const { stopped } = await sendAll();
    expect(stopped).toEqual({ why, ...(status === 429 && { waitMs: 7000 }) });
    expect(await countToSend()).toBe(2);
    expect(await refusedEvents()).toEqual([]);
  });

  test("an oversized batch is split, and an event that never fits is rejected alone", async () => {
    const { store, id } = await begun();
    const ids = ["a", "b", "c", "d", "e"].map((itemId) => answered(store, id, itemId).id);
    await kept(store);
    const large = ids[2] as string;
    answer = (path, init) => {
      if (path.includes("/lists/")) return new Response(null, { status: 204 });
      const { events } = JSON.parse(String(init?.body)) as { events: PreflightEvent[] };
      return events.some((event) => event.id === large) ? no(413) : taken();
    };
    const outcome = await sendAll();
    expect(outcome.stopped).toBeUndefined();
    expect((await refusedEvents()).map((e) => e.id)).toEqual([large]);
    expect(await countToSend()).toBe(0);
  });

  test("a captive portal that answers everything with success has accepted nothing", async () => {
    const { store, id } = await begun();
    answered(store, id, "approach.stance");
    await kept(store);
    for (const html of [
      () => new Response("<html>Sign in to the café</html>", { status: 200 }),
      () => new Response("<html>", { status: 511, headers: { "content-type": "text/html" } }),
      () => new Response("{}", { status: 200, headers: JSON_TYPE }),
    ]) {
      answer = html;
      expect((await sendAll()).stopped?.why).toBe("not reached");
      expect(await countToSend()).toBe(2);
    }
  });
});

test("answers from a clock a day ahead are sent with the corrected time and the original one", async () => {
  const { store, id } = await begun();
  const day = 86_400_000;
  const clock = jest.spyOn(Date, "now").mockReturnValue(Date.now() + day);
  const early = answered(store, id, "approach.stance");
  clock.mockRestore();
  await kept(store);
  answer = (path, init) => {
    if (path.includes("/lists/")) return new Response(null, { status: 204 });
    const { events } = JSON.parse(String(init?.body)) as { events: PreflightEvent[] };
    const limit = new Date(Date.now() + 600_000).toISOString();
    return taken(
      events.flatMap((e, index) =>
        e.at > limit ? [{ id: e.id, index, field: "at", reason: "future" }] : [],
      ),
    );
  };
  await sendAll();
  expect((await refusedEvents())[0]).toMatchObject({ id: early.id, field: "at" });
  await store.dispatch(correctClock());
  await settle(async () => (await countToSend()) === 0 && (await refusedEvents()).length === 0);
  const sent = asked.flatMap(({ events }) => events).findLast((event) => event.id === early.id);
  expect(sent?.deviceAt).toBe(early.at);
  expect(Math.abs(Date.parse(sent?.at ?? "") - Date.now())).toBeLessThan(60_000);
  // The current preflight matches.
  expect(store.getState().preflight.events.find((event) => event.id === early.id)?.at).toBe(sent?.at);
});

describe("another window of the same device", () => {
  /** An event stored by another window. */
  const elsewhere = (id: string, itemId: string): PreflightEvent =>
    ({
      id: newId(Date.now()),
      type: "discrepancy.opened",
      streamId: id,
      deviceId: newId(0),
      crewId: "ines",
      at: new Date().toISOString(),
      data: {
        discrepancyId: newId(0),
        registration: "QX-TAR",
        stationId: "tail",
        itemId,
        text: "Brake line wet",
        grade: "stop",
      },
    }) as PreflightEvent;
  const signature: EventInput = {
    type: "verdict.signed",
    data: { verdict: "go", decision: "fly", reasons: [] },
  };

  test("a discrepancy found there blocks signing here until it is shown", async () => {
    const { store, id } = await begun();
    await saveEvents([elsewhere(id, "tail.skid")]);
    expect(await store.dispatch(signPreflight(id, [signature]))).toBe(false);
    expect(selectPreflight(store.getState())?.state).toMatchObject({
      discrepancies: [{ text: "Brake line wet" }],
    });
    expect(selectPreflight(store.getState())?.state.signed).toBeUndefined();
    expect((await eventsOfPreflight(id)).some((e) => e.type === "verdict.signed")).toBe(false);
    // Now displayed, so it can be signed.
    expect(await store.dispatch(signPreflight(id, [signature]))).toBe(true);
    expect(selectPreflight(store.getState())?.state.signed?.decision).toBe("fly");
  });

  test("starting another preflight there is not lost when this one ends", async () => {
    const { store, id } = await begun();
    const db = await deviceDatabase();
    const other = { preflightId: newId(0), registration: "QX-HLD" };
    const open = (await db.get("notes", "open preflights")) as object[];
    await db.put("notes", [...open, other], "open preflights");
    await store.dispatch(
      changeOpenPreflights((walks) => walks.filter((preflight) => preflight.preflightId !== id)),
    );
    expect(await readNote("open preflights")).toEqual([other]);
    expect(store.getState().preflight.open).toEqual([other]);
  });
});

describe("a disk that rejects writes", () => {
  const { put } = IDBObjectStore.prototype;
  const full = () => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
  };
  afterEach(() => {
    IDBObjectStore.prototype.put = put;
  });

  test("loses no event of any stream, inside or outside a preflight", async () => {
    const { store, id } = await begun();
    full();
    const inWalk = answered(store, id, "approach.stance");
    const outside = store.dispatch(
      recordOfAircraft("oil.added", { registration: "QX-TAR", qt: 1, sealed: true }),
    );
    expect(outside).toMatchObject({ stream: "aircraft" });
    await settle(() => store.getState().preflight.keepError !== null);
    expect(store.getState().preflight.unkept.map((e) => e.id)).toEqual([inWalk.id, outside.id]);
    IDBObjectStore.prototype.put = put;
    // Without further action.
    await settle(() => store.getState().preflight.unkept.length === 0).catch(() => undefined);
    store.dispatch({ type: "sync/keepAgain" });
    await kept(store);
    const ids = (await allEvents()).map((e) => e.id);
    expect(ids).toContain(inWalk.id);
    expect(ids).toContain(outside.id);
    expect(store.getState().preflight.keepError).toBeNull();
  });

  test("reports a draft as well, and stores it as soon as possible", async () => {
    const { store } = await begun();
    // Writes started before storage is full succeed.
    await new Promise((resolve) => setTimeout(resolve, 50));
    full();
    await saveNote("draft:found", "half a sentence");
    expect(store.getState().sync.draftsWaiting).toBe(1);
    IDBObjectStore.prototype.put = put;
    await saveNote("draft:found", "half a sentence more");
    expect(store.getState().sync.draftsWaiting).toBe(0);
    expect(await readNote("draft:found")).toBe("half a sentence more");
  });

  test("does not start a preflight partially", async () => {
    const store = await device();
    full();
    await expect(store.dispatch(beginPreflight("QX-TAR"))).rejects.toThrow();
    IDBObjectStore.prototype.put = put;
    expect(await allEvents()).toEqual([]);
    expect(await (await deviceDatabase()).getAll("lists")).toEqual([]);
    expect(await readNote("open preflights")).toBeUndefined();
  });
});

test("a preflight started on another device is fetched and continued", async () => {
  const { store: first, id } = await begun();
  answered(first, id, "approach.stance");
  await kept(first);
  const events = await eventsOfPreflight(id);
  const db = await deviceDatabase();
  const [list] = await db.getAll("lists");
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
  answer = (path) => {
    if (path.endsWith(`/preflights/${id}`))
      return new Response(
        JSON.stringify({ summary: { registration: "QX-TAR" }, listHash: list?.hash, events }),
        { headers: JSON_TYPE },
      );
    return path.includes("/lists/")
      ? new Response(JSON.stringify(list?.list), { headers: JSON_TYPE })
      : taken();
  };
  const second = await device();
  expect(await second.dispatch(openPreflight(id))).toBe(true);
  expect(selectPreflight(second.getState())?.state.answers["approach.stance"]).toBeDefined();
  const more = answered(second, id, "approach.ground");
  await kept(second);
  await settle(async () => (await countToSend()) === 0);
  // Only this device's changes are written back.
  expect(
    asked
      .flatMap(({ events: sent }) => sent)
      .map((e) => e.id)
      .filter((one) => one === more.id),
  ).toHaveLength(1);
  expect(await second.dispatch(openPreflight(newId(0)))).toBe(false);
});

test("events already folded by the server are not folded again from the device's log", async () => {
  const old = Date.now() - 3_600_000;
  const event = (n: number): PreflightEvent =>
    ({
      id: newId(n),
      type: "item.answered",
      streamId: newId(n),
      deviceId: newId(0),
      crewId: "ines",
      at: new Date(n).toISOString(),
      data: { itemId: "a", outcome: "checked" },
    }) as PreflightEvent;
  const [sent, fresh] = [event(old), event(old + 1)];
  await saveSent([sent]);
  const db = await deviceDatabase();
  const there = await db.get("events", sent.id);
  if (there) await db.put("events", { ...there, sentAt: old });
  await saveEvents([fresh]);
  expect((await eventsBeyond(Date.now() - 60_000)).map((e) => e.id)).toEqual([fresh.id]);
  expect((await eventsBeyond(0)).map((e) => e.id).sort()).toEqual([sent.id, fresh.id].sort());
});
