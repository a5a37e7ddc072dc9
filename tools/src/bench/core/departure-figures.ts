import { calculateDeparture, type DepartureInput } from "@cravix/core/departure/calculate-departure";
import type { DepartureDay } from "@cravix/core/departure/departure-day";
import { distanceRisk } from "@cravix/core/departure/departure-risk";
import { judgeDeparture } from "@cravix/core/departure/judge-departure";
import { minimaSets } from "@cravix/core/departure/minima-sets";
import { remedies } from "@cravix/core/departure/remedies";
import { readReport } from "@cravix/core/weather/read-weather";
import { airfield, group, loadingFiles, rules } from "@cravix/demo";
import { parseMetar } from "metar-taf-parser";
import { type Figure, quantile, within } from "../figure";
import { so } from "../size";

const TURNS = so(400, 3);
const FLIGHTS = 10_000;
const NOW = "2026-06-15T12:00:00Z";
const REPORT = "METAR QXMP 151150Z 25012G22KT 210V280 9999 -SHRA FEW018 SCT025TCU BKN035 34/19 Q1003";

const timed = (work: () => unknown, turns: number): number[] =>
  Array.from({ length: turns }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });

/** The demo's twin, hot and heavy, with all charts. */
function input(): DepartureInput {
  const { type } = group.find(({ aircraft }) => aircraft.registration === "QX-DOV") as (typeof group)[number];
  const loading = loadingFiles.find(({ registration }) => registration === "QX-DOV");
  const [runway] = airfield.runways;
  if (!loading || !runway) throw new Error("the demo has no twin");
  return {
    type,
    airfield,
    runway,
    rules,
    minima: minimaSets({ rules, type, registration: "QX-DOV", day: "2026-06-15" }),
    loading,
    load: {
      stations: { front: 160, rear: 150, nose: 20, bags: 30 },
      litres: { left: 90, right: 90 },
      kgPerL: 0.72,
    },
    burn: { taxiL: 8, tripL: 76 },
    wind: { fromDeg: 250, kt: 12, gustKt: 22, between: [210, 280] },
    settingHpa: 1003,
    celsius: 34,
    dewPointC: 19,
  };
}

/** Recalculation of a departure, its worst case, remedies, and a report. */
export function departureFigures(): Figure[] {
  const hot = input();
  const report = readReport(REPORT, NOW);
  const day: DepartureDay = {
    now: NOW,
    powered: true,
    input: hot,
    report,
    station: "QXMP",
    conditions: [],
    sets: hot.minima ?? [],
  };
  if (!calculateDeparture(hot).takeOff) throw new Error("the take-off was not calculated");
  if (report.unread.length > 0) throw new Error("the report was not fully decoded");
  // Warm up: compile time belongs to the figures of opening.
  for (let turn = 0; turn < so(300, 1); turn++) judgeDeparture(day);
  const library = quantile(
    timed(() => parseMetar(REPORT), TURNS),
    0.99,
  );
  const once = quantile(
    timed(() => calculateDeparture(hot), TURNS),
    0.99,
  );
  return [
    within(
      "all judgements of a departure after one changed number, 99th percentile",
      quantile(
        timed(() => judgeDeparture(day), TURNS),
        0.99,
      ),
      "ms",
      once,
      8,
    ),
    within(
      `worst case over ${FLIGHTS} simulated take-offs, median`,
      quantile(
        timed(() => distanceRisk(hot, "takeOff", so(FLIGHTS, 100)), so(15, 1)),
        0.5,
      ),
      "ms",
      once * FLIGHTS,
      150,
    ),
    within(
      "smallest change that brings the take-off within limits, median",
      quantile(
        timed(() => remedies(hot), so(40, 1)),
        0.5,
      ),
      "ms",
      once,
      100,
    ),
    within(
      "10,000 METARs read group by group, with the words of each",
      quantile(
        timed(
          () => {
            for (let i = 0; i < so(10_000, 10); i++) readReport(REPORT, NOW);
          },
          so(5, 1),
        ),
        0.5,
      ),
      "ms",
      so(10_000, 10) * library,
      1000,
    ),
    within(
      "the same with everything missing, 99th percentile",
      quantile(
        timed(() => judgeDeparture({ now: NOW, powered: true, conditions: [], sets: day.sets }), TURNS),
        0.99,
      ),
      "ms",
      once,
      8,
    ),
    within(
      "METAR decoded and checked against its text, 99th percentile",
      quantile(
        timed(() => readReport(REPORT, NOW), TURNS),
        0.99,
      ),
      "ms",
      library,
      5,
    ),
  ];
}
