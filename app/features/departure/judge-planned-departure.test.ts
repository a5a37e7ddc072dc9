import { readReport } from "@cravix/core/weather/read-weather";
import { airfield, qxTar, rules, tarrow4 } from "@cravix/demo";
import { judgePlannedDeparture } from "./judge-planned-departure";

type Bundle = Parameters<typeof judgePlannedDeparture>[0];
type Plan = Parameters<typeof judgePlannedDeparture>[1];

const NOW = "2026-06-27T14:00:00.000Z";
const bundle = {
  aircraft: qxTar,
  type: tarrow4,
  airfield,
  fields: [],
  rules,
  fluids: {},
} as unknown as Bundle;
const plan = (more: object = {}): Plan => ({ conditions: [], flightMin: 60, ...more }) as unknown as Plan;
const told = (text: string) => ({
  departure: { weather: { report: readReport(text, NOW), from: "typed", variationDeg: 0 } },
});
const judge = (one: Bundle, planned: Plan) =>
  judgePlannedDeparture(one, planned, { persons: [], unknown: false }, NOW);
const words = ({ judgements }: ReturnType<typeof judge>) =>
  judgements.map(({ subject, sentence }) => `${subject}: ${sentence}`).join("\n");

const WIND = `METAR ${airfield.station} 271350Z 25012KT 9999 FEW030 18/09 Q1016`;

test("without weather there is no wind and no runway, and that is judged", () => {
  const judged = judge(bundle, plan());
  expect(judged.wind).toBeUndefined();
  expect(judged.input).toBeUndefined();
  expect(judged.judgements.some(({ grade }) => grade === "unjudged")).toBe(true);
});

test("a current report of this field gives wind and the runway into it", () => {
  const judged = judge(bundle, plan(told(WIND)));
  expect(judged.wind).toBeDefined();
  expect(judged.runwayId).toBe(judged.choice?.best?.runway.id);
  expect(judged.input).toMatchObject({ celsius: 18, settingHpa: 1016, dewPointC: 9 });
});

test("a runway chosen by the pilot stands, whatever the wind", () => {
  const other = airfield.runways.find(({ id }) => id !== judge(bundle, plan(told(WIND))).runwayId)?.id;
  const { departure } = told(WIND);
  expect(judge(bundle, plan({ departure: { ...departure, runwayId: other } })).runwayId).toBe(other);
});

test.each([
  ["of another field", "METAR QXZZ 271350Z 25012KT 9999 FEW030 18/09 Q1016"],
  ["of yesterday", WIND.replace("271350Z", "261350Z")],
])("a report %s is not used", (_, text) => {
  const judged = judge(bundle, plan(told(text)));
  expect(judged.wind).toBeUndefined();
  expect(judged.input).toBeUndefined();
});

test.each([
  ["no airfield", { ...bundle, airfield: null } as Bundle, "No airfield is on file"],
  [
    "an airfield without coordinates",
    { ...bundle, airfield: { ...airfield, lat: undefined, lon: undefined } } as unknown as Bundle,
    "has no coordinates on file",
  ],
  ["no rules", { ...bundle, rules: null } as unknown as Bundle, "do not say when night begins"],
])("with %s it says why sunset is not known", (_, one, why) =>
  expect(words(judge(one, plan()))).toContain(why));

test("the landing is the flight's length after the take-off, and a time entered counts before now", () => {
  const judged = judge(bundle, plan({ departure: { at: "2026-06-27T16:00:00.000Z" } }));
  expect([judged.at, judged.to]).toEqual(["2026-06-27T16:00:00.000Z", "2026-06-27T17:00:00.000Z"]);
});

test("what the weather suggests is proposed once", () => {
  const cold = told(WIND.replace("18/09", "M02/M04"));
  expect(judge(bundle, plan(cold)).proposed.map(({ condition }) => condition)).toContain("frost");
  expect(
    judge(bundle, plan({ ...cold, conditions: ["frost"] })).proposed.map(({ condition }) => condition),
  ).not.toContain("frost");
});
