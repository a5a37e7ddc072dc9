import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { fireEvent, render, screen } from "@testing-library/react-native";
import type { Drain } from "../../fluids";
import type { Acts, LoadedPreflight } from "../../open-preflight";
import { Actions } from "./actions";
import type { Measure } from "./measure-panel";

const item = (kind: Item["kind"], more: Partial<Item> = {}): Item => ({
  id: "x",
  station: "s",
  kind,
  title: "Elevator: count the hinges",
  part: "Elevator",
  good: "good",
  why: "why",
  miss: "stop",
  ...more,
});

function show(
  shown: Item,
  undoable: string[] = [],
  flowed: object = {},
  drained: object = {},
  blades: object = {},
) {
  const acts = {
    checked: jest.fn(),
    observed: jest.fn(),
    later: jest.fn(),
    canUndo: undoable.length > 0,
    undo: jest.fn(),
    interrupt: jest.fn(),
    blade: jest.fn(),
  };
  const measure = { value: undefined, decimals: 1, negative: false, onKey: jest.fn(), done: jest.fn() };
  const drain = {
    advice: { step: "take", words: "", why: "", seconds: 0 },
    approved: ["100LL"],
    asking: { itemId: "x" },
    draining: false,
    look: jest.fn(),
    give: jest.fn(),
    primary: jest.fn(),
    ...drained,
  };
  const onFound = jest.fn();
  const onWhy = jest.fn();
  render(
    <Actions
      preflight={{ state: { flowed, blades } } as unknown as LoadedPreflight}
      item={shown}
      acts={acts as unknown as Acts}
      measure={measure as unknown as Measure}
      drain={drain as unknown as Drain}
      wide={false}
      why={false}
      onWhy={onWhy}
      onFound={onFound}
    />,
  );
  const press = (words: string) => fireEvent.press(screen.getByText(words));
  return { acts, measure, drain, onFound, onWhy, press };
}

test("a count offers wrong numbers as readily as the right one, and a wrong one writes itself up", () => {
  const { acts, onFound, press } = show(item("count", { expected: 4 }));
  for (const number of ["0", "1", "2", "3", "4", "5"]) expect(screen.getByText(number)).toBeTruthy();
  press("4");
  expect(acts.checked).toHaveBeenCalledWith(expect.anything(), "4");
  expect(onFound).not.toHaveBeenCalled();
  press("3");
  expect(onFound).toHaveBeenCalledWith("Elevator: 3 serviceable, 4 expected");
  expect(acts.checked).toHaveBeenCalledTimes(1);
});

test("the yellow button says the item's own words and answers it", () => {
  const shown = item("remove", { done: "Off, stowed" });
  const { acts, onFound, press } = show(shown);
  press("Off, stowed");
  expect(acts.checked).toHaveBeenCalledWith(shown);
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
  expect(acts.checked).toHaveBeenCalledWith(expect.anything(), "24");
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
  press("Enter the reading");
  expect(measure.done).toHaveBeenCalledTimes(1);
  expect(acts.checked).not.toHaveBeenCalled();
});

test("undo is there only when there is something to undo; why, later and interrupted always", () => {
  const { acts, onWhy, press } = show(item("look"));
  press("Undo");
  expect(acts.undo).not.toHaveBeenCalled();
  for (const words of ["Why", "Postpone", "Interrupted"]) press(words);
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
  expect(acts.checked).toHaveBeenCalledWith(shown, undefined, true);
  screen.unmount();
  show(item("measure"), [], { s: {} });
  expect(screen.queryByText("Missed, done now")).toBeNull();
});

describe("a sample of fuel", () => {
  const drained = item("sample", { title: "Left drain", done: "Clear, blue" });

  test("is clean at one tap, and anything else at another", () => {
    const { drain, press } = show(drained);
    press("Clear, blue");
    expect(drain.primary).toHaveBeenCalledTimes(1);
    press("Water");
    press("Kerosene smell");
    expect(drain.look.mock.calls).toEqual([["water"], ["kerosene smell"]]);
  });

  test("that is not clean asks for another before it is looked at again", () => {
    const { drain, press } = show(
      drained,
      [],
      {},
      { advice: { step: "again", words: "", why: "", seconds: 0 } },
    );
    expect(screen.queryByText("Water")).toBeNull();
    press("Drain again");
    expect(drain.primary).toHaveBeenCalledTimes(1);
  });

  test("without colour goes onto paper, and another colour is named", () => {
    const colourless = show(drained, [], {}, { asking: { itemId: "x", more: "paper" } });
    colourless.press("Greasy ring");
    expect(colourless.drain.give).toHaveBeenCalledWith({
      look: "colourless",
      colour: "colourless",
      paper: "greasy ring",
    });
    screen.unmount();
    const other = show(drained, [], {}, { asking: { itemId: "x", more: "colour" } });
    expect(screen.queryByText("Blue")).toBeNull();
    other.press("Green");
    expect(other.drain.give).toHaveBeenCalledWith({ look: "wrong colour", colour: "green" });
  });

  test("that will not clear is logged, not taken", () => {
    const { press, drain } = show(
      drained,
      [],
      {},
      { advice: { step: "maintenance", words: "", why: "", seconds: 62 } },
    );
    press("Log it: do not fly");
    expect(drain.primary).toHaveBeenCalledTimes(1);
    expect(screen.queryByText("Clear, blue")).toBeNull();
  });
});

describe("a propeller pulled through", () => {
  const pull = item("pull", { expected: 6 });

  test("is counted blade by blade, each on record, and answered with the last", () => {
    const third = show(pull, [], {}, {}, { x: 2 });
    third.press("Blade 3 of 6 moved freely");
    expect(third.acts.blade).toHaveBeenCalledWith(pull, 3);
    expect(third.acts.checked).not.toHaveBeenCalled();
    screen.unmount();
    const last = show(pull, [], {}, {}, { x: 5 });
    last.press("Blade 6 of 6 moved freely");
    expect(last.acts.checked).toHaveBeenCalledWith(pull, "6");
  });

  test("that resists stops everything, in words for the mechanic", () => {
    const { press, onFound } = show(pull, [], {}, {}, { x: 3 });
    press("Resistance: stop");
    expect(onFound).toHaveBeenCalledWith(
      "Blade 4 of 6 resists: possible hydraulic lock. Do not force it. A mechanic must remove the spark plugs.",
    );
  });
});
