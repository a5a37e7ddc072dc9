import type { DiagnosisReport } from "@cravix/core/diagnosis";
import { render, screen } from "@testing-library/react-native";
import { DiagnosisPanel } from "./diagnosis-panel";

const calm: DiagnosisReport = {
  ranked: [{ name: "nothing wrong", what: "", probability: 0.83 }],
  next: [],
  telling: [],
  unlike: false,
};
const panel = (more: { out: string[]; doubtful?: boolean }) =>
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
  panel({ out: [], doubtful: true });
  expect(screen.getByText("Once more")).toBeTruthy();
  expect(screen.getByText(/not held still/)).toBeTruthy();
});

test("where nothing is out nothing stands out", () => {
  panel({ out: [] });
  expect(screen.getByText("Nothing stands out")).toBeTruthy();
  expect(screen.queryByText(/Do both again/)).toBeNull();
});
