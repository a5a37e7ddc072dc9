import type { DiagnosisReport } from "@cravix/core/diagnosis";
import { render, screen } from "@testing-library/react-native";
import { DiagnosisPanel } from "./diagnosis-panel";

const calm: DiagnosisReport = {
  ranked: [{ name: "no fault", what: "", probability: 0.83 }],
  next: [],
  telling: [],
  unlike: false,
  hidden: [],
  restsOnRates: false,
};
const panel = (more: { out: string[]; doubtful?: string; unread?: string }) =>
  render(
    <DiagnosisPanel report={calm} remedied={undefined} over={false} onTried={() => undefined} {...more} />,
  );

test("what is out of its limit is shown first, however likely it is that nothing is wrong", () => {
  panel({ out: ["right", "difference"] });
  expect(screen.getByText("Out of limits: right, difference")).toBeTruthy();
  expect(screen.queryByText("No fault found")).toBeNull();
  expect(screen.getByText(/The limit and the aircraft's handbook decide/)).toBeTruthy();
  expect(screen.getByText(/the fault is real/)).toBeTruthy();
});

test("a side that was read badly is asked for again, and nothing is called calm by it", () => {
  panel({ out: [], doubtful: "Too short to settle: repeat it and stay a few seconds longer." });
  expect(screen.getByText("Repeat the check")).toBeTruthy();
  expect(screen.getByText(/Too short to settle.* five seconds on each side/)).toBeTruthy();
});

// No drop at all is not good news, and a side that does not show was not proven good: common practice.
test("a magneto that does not show is called not read, and the engine is not called calm", () => {
  panel({ out: [], unread: "the magnetos" });
  expect(screen.getByText("No reading: the magnetos")).toBeTruthy();
  expect(screen.getByText(/enter the values you saw for the magnetos/)).toBeTruthy();
  expect(screen.queryByText(/No fault found\./)).toBeNull();
});

test("where nothing is out nothing stands out", () => {
  panel({ out: [] });
  expect(screen.getByText("No fault found")).toBeTruthy();
  expect(screen.queryByText(/Do both again/)).toBeNull();
});

test("what this run-up could not show is named with the test that would show it, and the engine is not called sound", () => {
  const hidden = [
    { fault: "induction leak", name: "induction leak", show: "Throttle to idle for half a minute." },
    { fault: "idle low", name: "idle set too low", show: "Throttle to idle for half a minute." },
    { fault: "odd", name: "something odd" },
  ];
  render(
    <DiagnosisPanel
      report={{ ...calm, hidden }}
      out={[]}
      remedied={undefined}
      over={false}
      onTried={() => undefined}
    />,
  );
  expect(screen.getByText("No fault found in what this run-up shows")).toBeTruthy();
  expect(screen.getByText("Not assessed by this run-up: 3")).toBeTruthy();
  expect(screen.getByText(/Induction leak; idle set too low\. Throttle to idle/)).toBeTruthy();
  expect(screen.getByText(/among those that this run-up can show/)).toBeTruthy();
});

test("where more certainty would rest on rates, there is no number", () => {
  render(
    <DiagnosisPanel
      report={{ ...calm, restsOnRates: true }}
      out={[]}
      remedied={undefined}
      over={false}
      onTried={() => undefined}
    />,
  );
  expect(screen.getByText(/Likely none, as far as this run-up shows/)).toBeTruthy();
  expect(screen.queryByText(/of 10|%/)).toBeNull();
});
