import type { Airfield, Runway } from "../aircraft/aircraft-type";
import { formatNumber } from "../units/format";
import { type WindRange, type WorstWind, worstWind } from "./worst-wind";

export interface RunwayWind extends WorstWind {
  runway: Runway;
}

export interface RunwayChoice {
  /** Best first. */
  runways: RunwayWind[];
  best?: RunwayWind;
  why: string;
}

/**
 * Converts a reported wind (true) to magnetic. `variationDeg`: east is positive. Source: magnetic is true less easterly
 * variation.
 */
export function magneticWind(wind: WindRange, variationDeg: number): WindRange {
  const turned = (deg: number) => (((deg - variationDeg) % 360) + 360) % 360;
  return {
    ...wind,
    ...(wind.fromDeg !== undefined && { fromDeg: turned(wind.fromDeg) }),
    ...(wind.between && { between: [turned(wind.between[0]), turned(wind.between[1])] as [number, number] }),
  };
}

/** Differences below this are equal for ranking. */
const ALIKE_KT = 1;

/**
 * Ranks all runways of a field in this wind (magnetic, like their headings): least tailwind, then least crosswind, then the
 * longest. Valid range and errors: as `worstWind`. Complexity: O(runways · log runways).
 */
export function compareRunways({ runways }: Pick<Airfield, "runways">, wind: WindRange): RunwayChoice {
  const all = runways.map((runway) => ({ runway, ...worstWind(runway.headingDeg, wind) }));
  const better = (a: RunwayWind, b: RunwayWind): number => {
    if (Math.abs(a.tailKt - b.tailKt) > ALIKE_KT) return a.tailKt - b.tailKt;
    if (Math.abs(a.crossKt - b.crossKt) > ALIKE_KT) return a.crossKt - b.crossKt;
    return b.runway.lengthM - a.runway.lengthM;
  };
  // Near-equality is not transitive: each is compared with the best so far, so that the result does not depend on the order in
  // the file.
  const left = [...all].sort(
    (a, b) => a.tailKt - b.tailKt || a.crossKt - b.crossKt || b.runway.lengthM - a.runway.lengthM,
  );
  const sorted: RunwayWind[] = [];
  while (left.length > 0) {
    const best = left.reduce((x, y) => (better(y, x) < 0 ? y : x));
    sorted.push(best);
    left.splice(left.indexOf(best), 1);
  }
  const [best, second] = sorted;
  if (!best) return { runways: [], why: "No runway on file." };
  return { runways: sorted, best, why: reason(best, second) };
}

function reason(best: RunwayWind, second: RunwayWind | undefined): string {
  const { runway, alongKt, crossKt } = best;
  const along =
    alongKt >= -0.5
      ? `${formatNumber(Math.max(0, alongKt))} kt headwind`
      : `${formatNumber(-alongKt)} kt tailwind`;
  const first = `Runway ${runway.id}: ${along}, crosswind up to ${formatNumber(crossKt)} kt`;
  if (!second) return `${first}.`;
  if (second.tailKt - best.tailKt > ALIKE_KT)
    return `${first}; ${second.runway.id} has ${formatNumber(second.tailKt)} kt tailwind.`;
  if (second.crossKt - best.crossKt > ALIKE_KT)
    return `${first}; ${second.runway.id} has up to ${formatNumber(second.crossKt)} kt crosswind.`;
  if (runway.lengthM > second.runway.lengthM) return `${first}, and it is longer than ${second.runway.id}.`;
  return `${first}; ${second.runway.id} is just as good.`;
}

/** Difference above which report and windsock disagree. Common practice. */
const APART_DEG = 30;
const APART_KT = 6;
const STILL_KT = 4;

/**
 * True if the windsock shows a different wind than the report (same north reference): then use the windsock. Undefined if they
 * agree, or if there is hardly any wind.
 */
export function windsockDisagrees(
  sock: { fromDeg: number; kt: number },
  report: WindRange,
): string | undefined {
  const most = Math.max(report.kt, report.gustKt ?? 0);
  if (sock.kt <= STILL_KT && report.kt <= STILL_KT) return undefined;
  const off =
    report.fromDeg === undefined || sock.kt <= STILL_KT || report.kt <= STILL_KT
      ? 0
      : report.between && turn(report.between[0], sock.fromDeg) <= turn(report.between[0], report.between[1])
        ? 0
        : Math.min(turn(report.fromDeg, sock.fromDeg), turn(sock.fromDeg, report.fromDeg));
  const stronger = sock.kt > most + APART_KT;
  const weaker = sock.kt < report.kt - APART_KT;
  if (off <= APART_DEG && !stronger && !weaker) return undefined;
  const words = [
    ...(off > APART_DEG ? [`${formatNumber(off)}° difference`] : []),
    ...(stronger ? ["windsock shows more wind"] : weaker ? ["windsock shows less wind"] : []),
  ];
  return `Report and windsock disagree (${words.join(", ")}): use the windsock.`;
}

const turn = (from: number, to: number) => (((to - from) % 360) + 360) % 360;
