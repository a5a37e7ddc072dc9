import type { Judgement } from "@cravix/core/judgement/judgement";
import { render, screen } from "@testing-library/react-native";
import { Provider } from "react-redux";
import { createStore } from "../store/store";
import { JudgementCard } from "./judgement-card";

const judgement: Judgement = {
  id: "magneto.left",
  subject: "Magneto, left",
  scope: "aircraft",
  grade: "stop",
  reading: { value: 160, unit: "rpm" },
  limit: "at most 125 rpm",
  margin: { value: -35, unit: "rpm" },
  source: { kind: "handbook", text: "handbook, run-up", example: true },
  sentence: "160 rpm drop, 35 over the limit.",
  action: "Taxi back.",
  caution: "Look outside.",
};

const show = (given: Judgement) =>
  render(
    <Provider store={createStore()}>
      <JudgementCard judgement={given} />
    </Provider>,
  );

test("a judgement shows its word, reading, limit, margin, source, what to do and the caution", () => {
  show(judgement);
  for (const text of [
    "Stop",
    "160 rpm",
    "at most 125 rpm",
    "−35 rpm",
    "handbook, run-up (example value)",
    "160 rpm drop, 35 over the limit.",
    "Taxi back.",
    "Look outside.",
  ])
    expect(screen.getByText(text)).toBeTruthy();
});

test("what cannot be judged says so and shows no limit", () => {
  show({
    id: "oil",
    subject: "Oil",
    scope: "day",
    grade: "unjudged",
    sentence: "No limit is on file for this aircraft.",
  });
  expect(screen.getByText("Not assessed")).toBeTruthy();
  expect(screen.queryByText("Limit")).toBeNull();
});
