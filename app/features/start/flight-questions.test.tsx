import { fireEvent, render, screen } from "@testing-library/react-native";
import { Provider } from "react-redux";
import { createStore } from "../../store/store";
import { FlightQuestions } from "./flight-questions";

type Props = Parameters<typeof FlightQuestions>[0];

/** Questions of a flight under these conditions, on an aircraft whose items are for these kinds of flight. */
function show(kinds: readonly string[], conditions: readonly string[], plan: object = {}) {
  const change = jest.fn();
  const aircraft = {
    bundle: { aircraft: { year: 1999 } },
    open: [],
    plan: { conditions, ...plan },
  } as unknown as Props["aircraft"];
  const papers = {
    pinned: { dues: kinds.map((kind) => ({ item: { for: [kind] } })) },
  } as unknown as Props["papers"];
  render(
    <Provider store={createStore()}>
      <FlightQuestions aircraft={aircraft} papers={papers} change={change} />
    </Provider>,
  );
  return change;
}

test.each([
  ["nothing depends on the flight", [], ["night"]],
  ["told by its conditions", ["passengers", "night"], ["night"]],
  ["a day flight is by day", ["day"], []],
])("nothing is asked: %s", (_, kinds, conditions) => {
  show(kinds, conditions);
  expect(screen.queryByTestId("flight-questions")).toBeNull();
});

test("a night flight is asked whether part of it is by day, if an item is for day flights", () => {
  const change = show(["day"], ["night"]);
  fireEvent.press(screen.getByText("Yes"));
  expect(change).toHaveBeenCalledWith({ dayAndNight: true });
});

test("an answer about one kind of airspace keeps the others", () => {
  const change = show(["towered airfield", "hire"], [], { airspace: { "transponder airspace": true } });
  expect(screen.getByText("What is this flight for?")).toBeTruthy();
  fireEvent.press(screen.getByText("No"));
  expect(change).toHaveBeenCalledWith({
    airspace: { "transponder airspace": true, "towered airfield": false },
  });
});
