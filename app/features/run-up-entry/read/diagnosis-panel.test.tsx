import type { DiagnosisReport } from "@cravix/core/diagnosis";
import { render, screen } from "@testing-library/react-native";
import { DiagnosisPanel } from "./diagnosis-panel";

const calm: DiagnosisReport = {
  ranked: [{ name: "nothing wrong", what: "", probability: 0.83 }],
  next: [],
  telling: [],
  unlike: false,
};
const panel = (more: { out: string[]; doubtful?: string; unread?: string }) =>
  render(
    <DiagnosisPanel report={calm} remedied={undefined} over={false} onTried={() => undefined} {...more} />,
  );

test("what is out of its limit is said first, however likely it is that nothing is wrong", () => {
  panel({ out: ["right", "apart"] });
  expect(screen.getByText("Out of limits: right, apart")).toBeTruthy();
  expect(screen.queryByText("Nothing stands out")).toBeNull();
  expect(screen.getByText(/The limit decides/)).toBeTruthy();
  expect(screen.getByText(/If it does the same, it is real/)).toBeTruthy();
});

test("a side that was read badly is asked for again, and nothing is called calm by it", () => {
  panel({ out: [], doubtful: "Too short to settle: stay a few seconds longer." });
  expect(screen.getByText("Once more")).toBeTruthy();
  expect(screen.getByText(/Too short to settle.* Five seconds on each side/)).toBeTruthy();
});

// No drop at all is no good sign, and a side that does not show is none that was good: common practice.
test("a magneto that does not show is called not read, and the engine is not called calm", () => {
  panel({ out: [], unread: "the magnetos" });
  expect(screen.getByText("Not read: the magnetos")).toBeTruthy();
  expect(screen.getByText(/type what you saw on the magnetos/)).toBeTruthy();
  expect(screen.queryByText(/Nothing is wrong/)).toBeNull();
});

test("where nothing is out nothing stands out", () => {
  panel({ out: [] });
  expect(screen.getByText("Nothing stands out")).toBeTruthy();
  expect(screen.queryByText(/Do both again/)).toBeNull();
});
