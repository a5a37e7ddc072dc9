import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { deviceDatabase } from "./database";
import { eventsOfPreflight, saveAtomically, saveEvents } from "./event-log";
import { changeNote, dropNote, readNote, saveNote, writeNote } from "./notes";

/** Everything a page does before storage responds: a page that dies then has done no more. */
const beforeTheDiskAnswers = async () => {
  for (let i = 0; i < 50; i++) await Promise.resolve();
};

const answered = (n: number) =>
  ({ id: `e${n}`, streamId: "walk", type: "item.answered", data: { itemId: `i${n}` } }) as PreflightEvent;

let committed: jest.SpyInstance;
beforeEach(async () => {
  await deviceDatabase();
  committed = jest.spyOn(IDBTransaction.prototype, "commit");
});
afterEach(() => committed.mockRestore());

// W3C Indexed Database API 3.0, IDBTransaction.commit() (from memory): ends a transaction without waiting for its requests.
test("answers are handed over completely before the disk responds", async () => {
  let kept = false;
  const keeping = saveEvents([answered(1), answered(2)]).then(() => {
    kept = true;
  });
  await beforeTheDiskAnswers();
  expect(committed).toHaveBeenCalledTimes(1);
  expect(kept).toBe(false);
  await keeping;
  expect((await eventsOfPreflight("walk")).map(({ id }) => id)).toEqual(["e1", "e2"]);
});

test("a draft too", async () => {
  const keeping = saveNote("draft", "the tyre");
  await beforeTheDiskAnswers();
  expect(committed).toHaveBeenCalledTimes(1);
  await keeping;
  expect(await readNote("draft")).toBe("the tyre");
});

test.each([
  ["answers", saveEvents],
  ["what is written down in one go", (events: readonly PreflightEvent[]) => saveAtomically({ events })],
])("of %s none is kept where one can't be", async (_, keep) => {
  const put = IDBObjectStore.prototype.put;
  const second = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementation(function (
    this: IDBObjectStore,
    value: { id: string },
  ) {
    if (value.id === "e11") throw new DOMException("no", "DataCloneError");
    return put.call(this, value);
  });
  await expect(keep([answered(10), answered(11)])).rejects.toThrow("no");
  second.mockRestore();
  const there = (await eventsOfPreflight("walk")).map(({ id }) => id);
  expect(there).not.toContain("e10");
  expect(there).not.toContain("e11");
});

describe("a disk that rejects writes", () => {
  const onTheDisk = async () => (await deviceDatabase()).get("notes", "found");
  let full: jest.SpyInstance;
  beforeEach(async () => {
    await writeNote("found", "oil on the nose wheel");
    full = jest.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
  });
  afterEach(() => full.mockRestore());

  test("is reported", async () => {
    await expect(saveEvents([answered(3)])).rejects.toThrow("full");
    full.mockRestore();
    await saveEvents([answered(3)]);
  });

  test("keeps the draft until its event is stored, and it is not shown twice", async () => {
    await expect(saveEvents([answered(4)])).rejects.toThrow("full");
    const dropped = dropNote("found");
    expect(await readNote("found")).toBeUndefined();
    expect(await onTheDisk()).toBe("oil on the nose wheel");
    full.mockRestore();
    await saveEvents([answered(4)]);
    await dropped;
    expect(await onTheDisk()).toBeUndefined();
  });

  test("a draft changed in the meantime is a new one and stays", async () => {
    await expect(saveEvents([answered(5)])).rejects.toThrow("full");
    const dropped = dropNote("found");
    full.mockRestore();
    await changeNote<string>("found", (before) => `${before ?? "nothing"}, then a cracked lens`);
    await saveEvents([answered(5)]);
    await dropped;
    expect(await onTheDisk()).toBe("nothing, then a cracked lens");
  });
});
