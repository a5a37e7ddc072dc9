import { act, renderHook, waitFor } from "@testing-library/react-native";
import { deviceDatabase } from "./database";
import { hearWaitingNotes, readNote, writeNote } from "./notes";
import { usePersistedState } from "./use-persisted-state";

interface Form {
  day: string;
  kg: string;
}
const EMPTY: Form = { day: "", kg: "" };
const form = (key: string) =>
  renderHook(({ name }: { name: string }) => usePersistedState<Form>(name, EMPTY), {
    initialProps: { name: key },
  });

/** Waits for a pending read. */
const afterTheDisk = () => act(async () => void (await (await deviceDatabase()).count("notes")));

test("a form stored on the device is restored", async () => {
  await writeNote("kept", { day: "20 November", kg: "700" });
  const { result } = form("kept");
  await waitFor(() => expect(result.current.value).toEqual({ day: "20 November", kg: "700" }));
});

test("a field entered before the device responds leaves the stored ones unchanged, here and on disk", async () => {
  await writeNote("early", { day: "20 November", kg: "700" });
  const { result } = form("early");
  act(() => result.current.change((before) => ({ ...before, day: "2026-11-20" })));
  expect(result.current.value.day).toBe("2026-11-20");
  await waitFor(() => expect(result.current.value).toEqual({ day: "2026-11-20", kg: "700" }));
  await waitFor(async () => expect(await readNote("early")).toEqual({ day: "2026-11-20", kg: "700" }));
});

test("a form left before the device responds keeps the new entry and the stored ones", async () => {
  await writeNote("left", { day: "", kg: "700" });
  const { result, unmount } = form("left");
  act(() => result.current.change((before) => ({ ...before, day: "2026-11-20" })));
  unmount();
  await waitFor(async () => expect(await readNote("left")).toEqual({ day: "2026-11-20", kg: "700" }));
});

test("a draft dropped before the device responds does not return", async () => {
  await writeNote("dropped", { day: "20 November", kg: "700" });
  const { result } = form("dropped");
  act(() => {
    result.current.change(() => EMPTY);
    result.current.drop();
  });
  await waitFor(async () => expect(await readNote("dropped")).toBeUndefined());
  await afterTheDisk();
  expect(result.current.value).toEqual(EMPTY);
});

test("an entry after switching forms goes into the new form", async () => {
  await writeNote("second", { day: "", kg: "900" });
  const { result, rerender } = form("first");
  await afterTheDisk();
  rerender({ name: "second" });
  act(() => result.current.change((before) => ({ ...before, day: "2026-11-21" })));
  await waitFor(async () => expect(await readNote("second")).toEqual({ day: "2026-11-21", kg: "900" }));
  expect(await readNote("first")).toBeUndefined();
});

test("a draft of one form is not shown in another, whose draft is empty", async () => {
  const { result, rerender } = form("somebody");
  await afterTheDisk();
  act(() => result.current.change(() => ({ day: "2026-11-20", kg: "82" })));
  rerender({ name: "somebody else" });
  expect(result.current.value).toEqual(EMPTY);
  await afterTheDisk();
  expect(result.current.value).toEqual(EMPTY);
});

test("a failed write is reported at once", async () => {
  await writeNote("full", { day: "20 November", kg: "700" });
  const waiting: number[] = [];
  hearWaitingNotes((count) => waiting.push(count));
  const put = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
    throw new DOMException("The disk is full.", "QuotaExceededError");
  });
  try {
    const { result } = form("full");
    act(() => result.current.change((before) => ({ ...before, day: "2026-11-20" })));
    await waitFor(() => expect(waiting.at(-1)).toBe(1));
    expect(result.current.value).toEqual({ day: "2026-11-20", kg: "700" });
    act(() => result.current.drop());
  } finally {
    put.mockRestore();
    hearWaitingNotes(() => undefined);
  }
});
