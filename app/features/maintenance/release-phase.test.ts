import { type ReleasePhase, type ReleaseStep, releasePhase } from "./release-phase";

const after = (...steps: ReleaseStep[]): ReleasePhase["name"] =>
  steps.reduce<ReleasePhase>(releasePhase, { name: "entering" }).name;
const signed: ReleaseStep = { type: "signed", id: "1", date: "2026-05-01" };

test.each<[ReleasePhase["name"], ReleaseStep[]]>([
  ["entering", []],
  ["entering", [{ type: "export" }]],
  ["entering", [{ type: "exported" }]],
  ["signed", [signed]],
  ["making the PDF", [signed, { type: "export" }]],
  ["signed", [signed, { type: "export" }, { type: "exported" }]],
  ["no PDF", [signed, { type: "export" }, { type: "export failed" }]],
  ["making the PDF", [signed, { type: "export" }, { type: "export failed" }, { type: "export" }]],
  ["signed", [signed, { type: "export failed" }]],
])("%s after %j", (name, steps) => expect(after(...steps)).toBe(name));

test("a second signature does not replace the first", () => {
  const once = releasePhase({ name: "entering" }, signed);
  expect(releasePhase(once, { ...signed, id: "2" })).toBe(once);
});
