import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { READING } from "@cravix/core/readings/reading-keys";
import { runUpEngine } from "@cravix/core/run-up-entry";
import { act, renderHook } from "@testing-library/react-native";
import type { ReactNode } from "react";
import { Provider } from "react-redux";
import { deviceDatabase } from "../../../device/log/database";
import { restore } from "../../../store/restore";
import { crewPicked } from "../../../store/state/session-slice";
import { createStore } from "../../../store/store";
import { TestPreflight } from "../../../testing/preflight-of";
import { useTypedRunUp } from "./use-manual-run-up";

beforeEach(async () => {
  const db = await deviceDatabase();
  for (const name of ["events", "lists", "notes"] as const) await db.clear(name);
  globalThis.fetch = (async () => {
    throw new TypeError("no network");
  }) as typeof fetch;
});

async function typing() {
  const store = createStore();
  await restore(store.dispatch);
  store.dispatch(crewPicked("ines"));
  const test = new TestPreflight();
  const { preflight } = test;
  const engine = runUpEngine(preflight, undefined);
  if (!engine) throw new Error("the trainer has no run-up");
  const { result } = renderHook(() => useTypedRunUp(preflight, engine), {
    wrapper: ({ children }: { children: ReactNode }) => <Provider store={store}>{children}</Provider>,
  });
  const recorded: PreflightEvent[] = [];
  store.subscribe(() => undefined);
  const events = () => [...store.getState().preflight.unkept, ...recorded];
  return { result, events, engine };
}
const rpmOf = (events: readonly PreflightEvent[]) =>
  Object.fromEntries(
    events.flatMap((e) => (e.type === "reading.taken" ? [[e.data.key, e.data.value] as const] : [])),
  );

test("good numbers are on record at once, all of them, and lead back to the preflight", async () => {
  const { result, events } = await typing();
  let end: ReturnType<typeof result.current.give> | undefined;
  act(() => {
    end = result.current.give({ base: 1800, right: 1730, left: 1720, back: [1800, 1795] });
    const made = events();
    expect(rpmOf(made)).toEqual({
      [READING.magnetoBase]: 1800,
      [READING.magnetoRight]: 1730,
      [READING.magnetoLeft]: 1720,
    });
    const read = made.find((e) => e.type === "run-up.read");
    expect(read?.type === "run-up.read" && read.data).toMatchObject({ from: "typed" });
    expect(made.some((e) => e.type === "item.answered" && e.data.itemId === "magneto.both")).toBe(true);
  });
  expect(end).toEqual({ to: "preflight" });
});

test("an engine that stopped, and one that did not drop, get their card; nothing is lost for it", async () => {
  const stops = await typing();
  act(() => {
    expect(stops.result.current.give({ base: 1800, right: 0, back: [] })).toEqual({
      to: "card",
      id: "stops on one",
      side: "right",
    });
    expect(rpmOf(stops.events())).toMatchObject({ [READING.magnetoRight]: 0 });
  });
  const none = await typing();
  act(() => {
    expect(none.result.current.give({ base: 1800, right: 1730, left: 1800, back: [] })).toEqual({
      to: "card",
      id: "no drop",
      side: "left",
    });
  });
});

test("a side that is over its limit is asked about; the answer goes on record at that side", async () => {
  const { result, events } = await typing();
  act(() => {
    expect(result.current.give({ base: 1800, right: 1620, left: 1730, back: [1800, 1800] })).toEqual({
      to: "page",
    });
  });
  const { question } = result.current.typed ?? {};
  expect(question?.words).toContain("right");
  const rough = question?.answers.find((answer) => answer.words === "Rough");
  act(() => {
    result.current.tell(rough?.told ?? []);
    const felt = events().filter((e) => e.type === "reading.taken" && e.data.feel);
    expect(felt.map((e) => e.type === "reading.taken" && [e.data.key, e.data.feel])).toEqual([
      [READING.magnetoRight, "rough"],
    ]);
  });
  expect(result.current.typed?.question).toBeUndefined();
  expect(result.current.typed?.report.ranked[0]?.fault).toBe("fouled plug");
  // After clearing, the next numbers are compared with these, and the attempt is counted.
  act(() => result.current.cleared());
  expect(result.current.typed).toBeUndefined();
  act(() => {
    result.current.give({ base: 1800, right: 1725, left: 1730, back: [1800, 1800] });
  });
  expect(result.current.typed).toMatchObject({ tries: 1, remedied: true });
});
