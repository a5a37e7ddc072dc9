import type { Airfield } from "@cravix/core/aircraft/aircraft-type";
import { fireEvent, render, screen } from "@testing-library/react-native";
import { Provider } from "react-redux";
import { createStore } from "../../store/store";
import { WeatherEntry } from "./weather-entry";

const NOW = "2026-06-27T14:00:00.000Z";
const field = { id: "f", name: "Marram Point", station: "QXMP", elevationFt: 50 } as Airfield;

function show(told?: Parameters<typeof WeatherEntry>[0]["told"]) {
  const onTold = jest.fn();
  render(
    <Provider store={createStore()}>
      <WeatherEntry field={field} told={told} now={NOW} flight={{ from: NOW, to: NOW }} onTold={onTold} />
    </Provider>,
  );
  return onTold;
}
const decode = (text: string) => {
  fireEvent.changeText(screen.getByLabelText("METAR or TAF, typed or pasted"), text);
  fireEvent.press(screen.getByText("Decode report"));
};

test("a report of this field's station is taken, and the field is cleared", () => {
  const onTold = show();
  decode("METAR QXMP 271350Z 25012KT 9999 FEW030 18/09 Q1016");
  expect(onTold).toHaveBeenCalledTimes(1);
  const [told, others] = onTold.mock.calls[0] ?? [];
  expect(told).toMatchObject({ from: "typed", report: { station: "QXMP", celsius: 18, settingHpa: 1016 } });
  expect(others).toEqual([]);
  expect(screen.getByLabelText("METAR or TAF, typed or pasted").props.value).toBe("");
});

test.each([
  ["nothing that is a report", "good morning"],
  ["a report cut short", "METAR QXMP"],
])("%s: the fault is shown, the text stays, and nothing is taken", (_, text) => {
  const onTold = show();
  decode(text);
  expect(screen.root.findAll(({ props }) => props.role === "alert").length).toBeGreaterThan(0);
  expect(onTold).not.toHaveBeenCalled();
  expect(screen.getByLabelText("METAR or TAF, typed or pasted").props.value).toBe(text);
});

test("of two reports this field's is used, and the other is named", () => {
  const onTold = show();
  decode(
    "METAR QXSM 271350Z 09020KT 9999 SCT040 17/08 Q1015=\nMETAR QXMP 271350Z 25012KT 9999 FEW030 18/09 Q1016=",
  );
  const [told, others] = onTold.mock.calls[0] ?? [];
  expect(told).toMatchObject({ report: { station: "QXMP" } });
  expect(others).toHaveLength(1);
  expect(others[0]).toContain("QXSM");
});

test("a new report keeps what else was entered, but not the old variation", () => {
  const onTold = show({ surface: "wet", variationDeg: 3 } as never);
  decode("METAR QXMP 271350Z 25012KT 9999 FEW030 18/09 Q1016");
  const [told] = onTold.mock.calls[0] ?? [];
  expect(told).toMatchObject({ surface: "wet" });
  expect(told).not.toHaveProperty("variationDeg");
});
