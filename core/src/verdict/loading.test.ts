import { composeList } from "../checklist/list/compose-list";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import type { LoadingProfile } from "../mass-and-balance/loading-profile";
import { event, item, LIST_INPUT, source, streamId, type } from "../testing/small-aircraft";
import { judgePreflight } from "./judge-preflight";

/** A glider of this checklist: nothing to dip, so the plan is judged at once. */
const profile: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  datum: "the leading edge",
  weighing: { date: "2025-03-01", emptyKg: 400, armMm: 500, source },
  stations: [
    { id: "front", name: "front seat", kind: "seat", armMm: -1000, maxKg: 110, minKg: 70, pilot: true },
    { id: "rear", name: "rear seat", kind: "seat", armMm: 0, maxKg: 110 },
  ],
  tanks: [],
  envelope: {
    corners: [
      { kg: 400, armMm: 150 },
      { kg: 590, armMm: 150 },
      { kg: 590, armMm: 420 },
      { kg: 400, armMm: 420 },
    ],
    source,
  },
  maxTakeoffKg: { value: 590, source },
};
const judged = (
  plannedLoad?: { stations: Record<string, number>; litres?: Record<string, number> },
  loading = profile,
) => {
  const list = composeList({
    ...LIST_INPUT,
    loading,
    type: { ...type, items: [...type.items, item("x", "papers")] },
  });
  const begun = event("preflight.started", {
    registration: "QX-TST",
    listHash: "h",
    conditions: [],
    ...(plannedLoad && { plannedLoad }),
  });
  return judgePreflight(list, foldPreflight(streamId, [begun])).judgements.find(
    ({ judge }) => judge === "loading",
  );
};

test("within limits shows what is left; a light pilot is a stop, with the ballast needed; without a plan nothing is assessed", () => {
  expect(judged({ stations: { front: 80, rear: 80 } })).toMatchObject({
    grade: "within limits",
    reading: { value: 560, unit: "kg" },
    margin: { value: 30 },
    topic: "mass",
  });
  const light = judged({ stations: { front: 62 } });
  expect(light).toMatchObject({ grade: "stop", action: "Add 8 kg of ballast at front seat." });
  expect(light?.sentence).toContain("8.0 kg too light on front seat");
  expect(judged({ stations: { front: 100, rear: 106 } })?.sentence).toContain(
    "16 kg over 590 kg at take-off",
  );
  expect(judged()).toMatchObject({
    grade: "unjudged",
    cause: "unknown.loading",
    sentence: "Not checked: the load on board is not entered.",
  });
});

test("with a tank nobody dipped nothing is assessed: no number is invented", () => {
  const tanked = { ...profile, tanks: [{ tank: "main", armMm: 100 }] };
  expect(judged({ stations: { front: 80 }, litres: { main: 40 } }, tanked)).toMatchObject({
    grade: "unjudged",
    sentence: "Not checked: the fuel in the tanks is not measured.",
  });
});
