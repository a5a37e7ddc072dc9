import type { Fleet } from "@cravix/contract/client";
import { deviceDatabase } from "../../device/log/database";
import { createStore } from "../store";
import { retryUntilLoaded } from "./retry-until-loaded";
import { fleetOf } from "./server-state";

const fleet: Fleet = { crew: [], aircraft: [] };
let asked = 0;
/** Responses in order, the last one repeated. */
function serverSays(...answers: (() => Response)[]) {
  asked = 0;
  globalThis.fetch = (async () => {
    const answer = answers[Math.min(asked, answers.length - 1)];
    asked++;
    return answer?.();
  }) as unknown as typeof fetch;
}
const nobody = () => {
  throw new TypeError("Failed to fetch");
};
const json = (body: unknown, status = 200, type = "application/json") =>
  new Response(JSON.stringify(body), { status, headers: { "content-type": type } });

beforeEach(async () => {
  const db = await deviceDatabase();
  await db.clear("notes");
});

// The store notifies listeners one frame later.
afterAll(() => new Promise((resolve) => setTimeout(resolve, 50)));

test("a page opened just before the response fills in by itself", async () => {
  serverSays(nobody, nobody, () => json(fleet));
  const { dispatch, getState } = createStore();
  await dispatch(retryUntilLoaded());
  expect(fleetOf(getState())?.crew).toEqual([]);
  expect(asked).toBe(3);
}, 30_000);

test("a device that comes online asks at once", async () => {
  serverSays(nobody, () => json(fleet));
  const device = new EventTarget();
  const hears = jest.fn(device.addEventListener.bind(device));
  Object.assign(globalThis, {
    addEventListener: hears,
    removeEventListener: device.removeEventListener.bind(device),
  });
  // The delay never ends here: only coming online can end it.
  const { setTimeout: later } = globalThis;
  const waits = jest
    .spyOn(globalThis, "setTimeout")
    .mockImplementation(((work: () => void, ms = 0) =>
      later(work, ms >= 700 ? 1e6 : ms)) as typeof setTimeout);
  const { dispatch, getState } = createStore();
  const known = dispatch(retryUntilLoaded());
  while (hears.mock.calls.length < 1) await new Promise((resolve) => later(resolve, 5));
  device.dispatchEvent(new Event("online"));
  await known;
  waits.mockRestore();
  expect(fleetOf(getState())).toBeDefined();
  expect(asked).toBe(2);
});

test("a rejection is a response; after leaving the page no more requests are sent", async () => {
  const no = { type: "about:blank", title: "No", status: 403, detail: "Not for you." };
  serverSays(() => json(no, 403, "application/problem+json"));
  const first = createStore();
  await first.dispatch(retryUntilLoaded());
  expect(asked).toBe(1);
  serverSays(nobody);
  const second = createStore();
  const leaves = new AbortController();
  const ends = second.dispatch(retryUntilLoaded(undefined, leaves.signal));
  while (asked < 1) await new Promise((resolve) => setTimeout(resolve, 5));
  leaves.abort();
  await ends;
  expect(asked).toBe(1);
});
