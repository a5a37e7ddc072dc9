import { act, renderHook, waitFor } from "@testing-library/react-native";
import type { ReactNode } from "react";
import { Provider } from "react-redux";
import { deviceDatabase } from "../../device/log/database";
import { saveNote } from "../../device/log/notes";
import { ownDue, savedDueItems } from "../../store/preflight/own-due";
import { restore } from "../../store/restore";
import { crewPicked } from "../../store/state/session-slice";
import { createStore } from "../../store/store";
import { usePersonDue } from "./use-person-due";

const item = { id: "medical", kind: "medical", name: "Medical" };
const record = { items: [item], works: [], flown: [] };
const json = (body: unknown, status = 200, type = "application/json") =>
  new Response(JSON.stringify(body), { status, headers: { "content-type": type } });
const nobody = () => {
  throw new TypeError("Failed to fetch");
};
const busy = () =>
  json({ status: 503, title: "busy", detail: "Too much to do." }, 503, "application/problem+json");
const no = () => json({ status: 403, title: "no", detail: "Not for you." }, 403, "application/problem+json");

let asked = 0;
/** Responses to due item requests, in order, the last one repeated; other requests fail. */
function serverSays(...answers: (() => Response | Promise<Response>)[]) {
  asked = 0;
  globalThis.fetch = (async (input: RequestInfo | URL) => {
    if (!String(input instanceof Request ? input.url : input).endsWith("/due")) return nobody();
    return (answers[asked++] ?? answers.at(-1) ?? nobody)();
  }) as typeof fetch;
}

/** Goes online when the test says so. */
let network = new EventTarget();
beforeEach(async () => {
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
  await saveNote("fleet", { crew: [{ id: "ines", name: "Inês", role: "pilot" }], aircraft: [] });
  network = new EventTarget();
  Object.assign(globalThis, {
    addEventListener: network.addEventListener.bind(network),
    removeEventListener: network.removeEventListener.bind(network),
  });
});
afterEach(() => new Promise((resolve) => setTimeout(resolve, 50)));

async function hers(...answers: (() => Response | Promise<Response>)[]) {
  const store = createStore();
  await restore(store.dispatch);
  // Selecting oneself triggers a request, which fails here.
  serverSays(nobody);
  const kept = await savedDueItems("ines");
  store.dispatch(crewPicked("ines"));
  await waitFor(() => expect(asked).toBe(kept ? 0 : 1));
  serverSays(...answers);
  return renderHook(() => usePersonDue("ines"), {
    wrapper: ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>,
  });
}

test("what is kept stands there while the server takes its time, and its word then", async () => {
  serverSays(() => json({ ...record, items: [{ ...item, name: "Medical as it was" }] }));
  await ownDue(createStore().dispatch, "ines");
  let answer: (response: Response) => void = () => undefined;
  const { result } = await hers(() => new Promise<Response>((resolve) => (answer = resolve)));
  await waitFor(() => expect(result.current.record?.items[0]?.name).toBe("Medical as it was"));
  await waitFor(() => expect(asked).toBe(1));
  await act(async () => answer(json(record)));
  await waitFor(() => expect(result.current.record?.items[0]?.name).toBe("Medical"));
  expect(result.current.unknown).toBe(false);
});

test("where nothing is kept and no one answers it is shown to be unknown, and asked for until the network is there", async () => {
  const { result } = await hers(nobody, () => json(record));
  await waitFor(() => expect(result.current.away).toBe(true));
  await waitFor(() => expect(result.current.unknown).toBe(true), { timeout: 5000 });
  expect(result.current.record).toBeUndefined();
  act(() => void network.dispatchEvent(new Event("online")));
  await waitFor(() => expect(result.current.record?.items).toHaveLength(1), { timeout: 5000 });
  expect(result.current).toMatchObject({ unknown: false, away: false });
});

test("a server that has too much to do is asked again; one that says no is not", async () => {
  const first = await hers(busy, () => json(record));
  await waitFor(() => expect(first.result.current.record?.items).toHaveLength(1), { timeout: 10_000 });
  first.unmount();
  await (await deviceDatabase()).clear("notes");
  await saveNote("fleet", { crew: [{ id: "ines", name: "Inês", role: "pilot" }], aircraft: [] });
  const second = await hers(no);
  await waitFor(() => expect(asked).toBe(1));
  await waitFor(() => expect(second.result.current.unknown).toBe(true), { timeout: 5000 });
  act(() => void network.dispatchEvent(new Event("online")));
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(asked).toBe(1);
  expect(second.result.current.away).toBe(false);
});
