import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { Judgement } from "../judgement/judgement";
import { FLUID_JUDGES } from "./judges/fluid-judges";
import { type Given, itemsOfKinds, type Judge, type JudgedPreflight } from "./judges/judge";
import { AIRWORTHINESS_JUDGES } from "./judges/judge-airworthiness";
import { DATE_JUDGES } from "./judges/judge-dates";
import { DEPARTURE_JUDGES } from "./judges/judge-departure";
import { ENGINE_JUDGES } from "./judges/judge-engines";
import { LOADING_JUDGES } from "./judges/judge-loading";
import { PANEL_JUDGES } from "./judges/judge-panel";
import { TWIN_JUDGES } from "./judges/judge-twin";
import { asSeenInFile } from "./judges/seen-in-file";
import { guarded, usableReadings } from "./judges/usable-readings";

export interface PreflightJudgements extends Given {
  judgements: Judgement[];
}

/** All judges of a preflight. */
export const JUDGES: readonly Judge[] = [
  ...FLUID_JUDGES,
  ...ENGINE_JUDGES,
  ...TWIN_JUDGES,
  ...PANEL_JUDGES,
  ...DATE_JUDGES,
  ...AIRWORTHINESS_JUDGES,
  ...LOADING_JUDGES,
  ...DEPARTURE_JUDGES,
];

/**
 * Judges a preflight with the limits pinned in its checklist: each reading against its item's limit, then the combined
 * judgements. Impossible readings, incompatible units and missing limits are "unjudged" with the reason. The order of the judges
 * does not matter: each waits for those it needs. Complexity: O(items) plus the judges.
 */
export function judgePreflight(
  list: ComposedList,
  state: PreflightState,
  judges: readonly Judge[] = JUDGES,
): PreflightJudgements {
  const { judgements, quantity, value } = usableReadings(list, state);
  const preflight: JudgedPreflight = { list, state, quantity, value, itemsOf: itemsOfKinds(list), given: {} };
  const made = new Map<string, Judgement[]>();
  for (const judge of topologicalOrder(judges))
    made.set(
      judge.id,
      guarded(judge.id, judge.subject, () => judge.judge(preflight)).map((judgement) => ({
        ...judgement,
        topic: judge.topic,
        judge: judge.id,
      })),
    );
  // Fixed output order, independent of the order of evaluation.
  const said = [...made].sort(([a], [b]) => PLACES.indexOf(a) - PLACES.indexOf(b)).flatMap(([, own]) => own);
  return { ...preflight.given, judgements: seenInFiles(state, [...judgements, ...said]) };
}

const PLACES = JUDGES.map((judge) => judge.id);

/** Topological order of the judges by their needs. */
function topologicalOrder(judges: readonly Judge[]): Judge[] {
  const done = new Map<string, Judge>();
  const open = new Set<string>();
  const visit = (judge: Judge) => {
    if (done.has(judge.id)) return;
    if (open.has(judge.id)) throw new Error(`The judges around ${judge.id} wait for each other.`);
    open.add(judge.id);
    for (const id of judge.needs) {
      const needed = judges.find((one) => one.id === id);
      if (needed) visit(needed);
    }
    done.set(judge.id, judge);
  };
  for (const judge of judges) visit(judge);
  return [...done.values()];
}

/** Judgements from readings read from a file. */
function seenInFiles(state: PreflightState, judgements: readonly Judgement[]): Judgement[] {
  const fromFile = new Set(
    Object.values(state.readings)
      .filter((reading) => reading.from === "file")
      .map((reading) => reading.itemId),
  );
  if (fromFile.size === 0) return [...judgements];
  return judgements.map((judgement) =>
    judgement.itemIds?.some((id) => fromFile.has(id)) ? asSeenInFile(judgement) : judgement,
  );
}
