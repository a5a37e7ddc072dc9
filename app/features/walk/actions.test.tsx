import type { Item } from "@cravix/core";
import { fireEvent, render, screen } from "@testing-library/react-native";
import { Actions } from "./actions";
import type { Measure } from "./measure-panel";
import type { Acts } from "./use-acts";
import type { Walk } from "./use-preflight";

const item = (kind: Item["kind"], more: Partial<Item> = {}): Item => ({
  id: "x",
  station: "s",
  kind,
  title: "Elevator: count the hinges",
  good: "good",
  why: "why",
  miss: "stop",
  ...more,
});

function show(shown: Item, undoable: string[] = [], flowed: object = {}) {
  const acts = {
    sound: jest.fn(),
    observed: jest.fn(),
    later: jest.fn(),
    undo: jest.fn(),
    interrupt: jest.fn(),
  };
  const measure = { value: undefined, decimals: 1, negative: false, onKey: jest.fn(), done: jest.fn() };
  const onFound = jest.fn();
  const onWhy = jest.fn();
  render(
    <Actions
      walk={{ state: { undoable, flowed } } as unknown as Walk}
      item={shown}
      acts={acts as unknown as Acts}
      measure={measure as unknown as Measure}
      wide={false}
      why={false}
      onWhy={onWhy}
      onFound={onFound}
    />,
  );
  const press = (words: string) => fireEvent.press(screen.getByText(words));
  return { acts, measure, onFound, onWhy, press };
}

test("a count offers wrong numbers as readily as the right one, and a wrong one writes itself up", () => {
  const { acts, onFound, press } = show(item("count", { expected: 4 }));
  for (const number of ["0", "1", "2", "3", "4", "5"]) expect(screen.getByText(number)).toBeTruthy();
  press("4");
  expect(acts.sound).toHaveBeenCalledWith(expect.anything(), "4");
  expect(onFound).not.toHaveBeenCalled();
  press("3");
  expect(onFound).toHaveBeenCalledWith("Elevator: 3 seen sound, 4 expected");
  expect(acts.sound).toHaveBeenCalledTimes(1);
});

test("the yellow button says the item's own words and answers it", () => {
  const shown = item("remove", { done: "Off, stowed" });
  const { acts, onFound, press } = show(shown);
  press("Off, stowed");
  expect(acts.sound).toHaveBeenCalledWith(shown);
  press("Found something");
  expect(onFound).toHaveBeenCalledWith();
});

test("a choice answers with what was chosen", () => {
  const { acts, press } = show(
    item("choice", {
      choices: [
        { value: "06", label: "06" },
        { value: "24", label: "24" },
      ],
    }),
  );
  press("24");
  expect(acts.sound).toHaveBeenCalledWith(expect.anything(), "24");
});

test("a known thing is the same, grown, or gone", () => {
  const { acts, onFound, press } = show(item("observe"));
  press("The same");
  press("Grown");
  expect(onFound.mock.calls).toEqual([["same"], ["grown"]]);
  press("Gone");
  expect(acts.observed).toHaveBeenCalledWith(expect.anything(), "gone");
});

test("a measure goes to the keypad, and is given only by its own button", () => {
  const { acts, measure, press } = show(item("measure"));
  for (const key of ["6", ".", "8", "Delete"]) press(key);
  expect(measure.onKey.mock.calls.flat()).toEqual(["6", ".", "8", "back"]);
  press("Type what you read");
  expect(measure.done).toHaveBeenCalledTimes(1);
  expect(acts.sound).not.toHaveBeenCalled();
});

test("undo is there only when there is something to undo; why, later and interrupted always", () => {
  const { acts, onWhy, press } = show(item("look"));
  press("Undo");
  expect(acts.undo).not.toHaveBeenCalled();
  for (const words of ["Why", "Later", "Interrupted"]) press(words);
  expect([onWhy.mock.calls.length, acts.later.mock.calls.length, acts.interrupt.mock.calls.length]).toEqual([
    1, 1, 1,
  ]);
  screen.unmount();
  const again = show(item("look"), ["event"]);
  again.press("Undo");
  expect(again.acts.undo).toHaveBeenCalledTimes(1);
});

test("what was done from memory can have been missed, and is caught by the reading", () => {
  const shown = item("look", { done: "Whole" });
  const { acts, press } = show(shown, [], { s: {} });
  press("Missed, done now");
  expect(acts.sound).toHaveBeenCalledWith(shown, undefined, true);
  screen.unmount();
  show(item("measure"), [], { s: {} });
  expect(screen.queryByText("Missed, done now")).toBeNull();
});
