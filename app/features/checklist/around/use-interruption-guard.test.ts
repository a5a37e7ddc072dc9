import { AWAY_SECONDS, LONG_GAP_MIN } from "@cravix/core/pace/long-gap";
import { act, renderHook } from "@testing-library/react-native";
import { TestPreflight } from "../../../testing/preflight-of";
import { useInterruptionGuard } from "./use-interruption-guard";

const NOW = Date.UTC(2026, 4, 1, 9, 30);
const page = Object.assign(new EventTarget(), { visibilityState: "visible" });
const real = globalThis.document;

beforeEach(() => {
  jest.useFakeTimers({ now: NOW });
  page.visibilityState = "visible";
  Object.assign(globalThis, { document: page });
});
afterEach(() => {
  jest.useRealTimers();
  Object.assign(globalThis, { document: real });
});

/** A preflight just answered. */
function guarded() {
  const test = new TestPreflight(Date.now() - 8000);
  test.did("item.answered", { itemId: test.list.items[0]?.id ?? "", outcome: "checked" });
  const hook = renderHook(() => useInterruptionGuard(test.preflight, test.acts));
  const shows = (state: "visible" | "hidden") =>
    act(() => {
      page.visibilityState = state;
      page.dispatchEvent(new Event("visibilitychange"));
    });
  // As in the app: recorded events are rendered before the next check.
  const passes = (ms: number) => {
    for (let gone = 0; gone < ms; gone += 1000) {
      act(() => {
        jest.advanceTimersByTime(1000);
      });
      hook.rerender({});
    }
  };
  return { test, hook, shows, passes, interruptions: () => test.preflight.state.interruptions };
}

test("a screen that was left for longer than a glance is an interruption since it was left", () => {
  const { shows, passes, interruptions } = guarded();
  shows("hidden");
  passes(AWAY_SECONDS * 1000 + 1000);
  shows("visible");
  expect(interruptions()).toEqual([
    expect.objectContaining({ cause: "screen left", since: new Date(NOW).toISOString() }),
  ]);
});

test("a glance at a message is none, and one that is open is not opened twice", () => {
  const { test, hook, shows, passes, interruptions } = guarded();
  shows("hidden");
  passes((AWAY_SECONDS - 1) * 1000);
  shows("visible");
  expect(interruptions()).toEqual([]);
  test.did("interrupted", { cause: "spoken to" });
  hook.rerender({});
  shows("hidden");
  passes(60_000);
  shows("visible");
  expect(interruptions()).toHaveLength(1);
});

test("a long silence is noticed by itself, and only while somebody could look", () => {
  const { passes, shows, interruptions } = guarded();
  shows("hidden");
  passes(LONG_GAP_MIN * 60_000 + 20_000);
  expect(interruptions()).toEqual([]);
  page.visibilityState = "visible";
  const seen = guarded();
  seen.passes(LONG_GAP_MIN * 60_000 + 20_000);
  expect(seen.interruptions()).toEqual([expect.objectContaining({ cause: "long gap" })]);
});

test("what is signed is not interrupted, and a page that was left listens no more", () => {
  const { test, hook, shows, passes, interruptions } = guarded();
  test.did("verdict.signed", { verdict: "go", decision: "fly", reasons: [] });
  hook.rerender({});
  shows("hidden");
  passes(600_000);
  shows("visible");
  expect(interruptions()).toEqual([]);
  const left = guarded();
  left.hook.unmount();
  left.shows("hidden");
  left.passes(600_000);
  left.shows("visible");
  expect(left.interruptions()).toEqual([]);
});
