import type { Fleet } from "@cravix/contract/client";
import { qxTar } from "@cravix/demo";
import { deviceDatabase } from "../../device/log/database";
import { trainerBundle } from "../../testing/trainer-bundle";
import { createStore } from "../store";
import { bundleOf, refresh } from "./server-state";

const bundle = trainerBundle;
const fleet: Fleet = { crew: [], aircraft: [] };

beforeEach(async () => {
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
});

// The store notifies listeners one frame later.
afterAll(() => new Promise((resolve) => setTimeout(resolve, 50)));

test("data saved while an older response was on its way is still shown", async () => {
  let story = "as it was";
  const waiting: (() => void)[] = [];
  globalThis.fetch = (async (input: RequestInfo | URL) => {
    const { pathname } = new URL(input instanceof Request ? input.url : String(input), "http://localhost");
    const asked = story;
    if (pathname.endsWith("/QX-TAR")) await new Promise<void>((go) => waiting.push(go));
    const body = pathname.endsWith("/QX-TAR") ? { ...bundle, aircraft: { ...qxTar, story: asked } } : fleet;
    return new Response(JSON.stringify(body), { headers: { "content-type": "application/json" } });
  }) as typeof fetch;
  const { dispatch, getState } = createStore();
  // A page requests data; before the response arrives, something is saved and requested again.
  const opened = refresh(dispatch, "QX-TAR");
  while (waiting.length < 1) await new Promise((resolve) => setTimeout(resolve, 5));
  story = "as it was saved";
  const saved = refresh(dispatch, "QX-TAR");
  waiting.shift()?.();
  await opened;
  while (waiting.length < 1) await new Promise((resolve) => setTimeout(resolve, 5));
  waiting.shift()?.();
  await saved;
  expect(bundleOf(getState(), "QX-TAR")?.aircraft.story).toBe("as it was saved");
});
