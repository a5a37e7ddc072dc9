import type { Item } from "../../aircraft/aircraft-type";
import type { ComposedList } from "../../checklist/list/compose-list";
import type { FuelSampleTaken } from "../../checklist/stream/fluid-events";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { drainAdvice } from "../../fuel/drain/drain-protocol";
import { judgeSample } from "../../fuel/drain/fuel-sample";
import type { Judgement } from "../../judgement/judgement";

import { approvedGrades } from "./fuel-input";
import { WRONG_FUEL } from "./judge-uplifts";

/**
 * Judges the fuel samples, drain by drain. Source: appearance of samples, FAA-H-8083-3 (from memory); three samples or a minute
 * by common practice.
 */
export function judgeDrains(list: ComposedList, state: PreflightState): Judgement[] {
  return list.items
    .filter((item) => item.kind === "sample")
    .flatMap((item) => judgeDrain(item, list, state) ?? []);
}

function judgeDrain(item: Item, list: ComposedList, state: PreflightState): Judgement | undefined {
  const approved = approvedGrades(list);
  const taken = state.samples[item.id] ?? [];
  const last = taken.at(-1);
  if (!last) return undefined;
  const own = { id: `fuel.sample.${item.id}`, subject: item.title, itemIds: [item.id] };
  // What cannot be drained away concerns the next pilot too.
  const stays = { ...own, scope: "aircraft" as const };
  const today = { ...own, scope: "day" as const };
  const judged = judgeSample(last, approved);
  const { before, since } = aroundRocking(taken, state.rocked?.at);
  const advice = drainAdvice(before, since, state.rocked !== undefined, approved);
  if (advice.step === "maintenance")
    return {
      ...stays,
      cause: judged.outcome === "finding" ? WRONG_FUEL : WILL_NOT_CLEAR,
      grade: "stop",
      sentence: advice.why,
      action: advice.words,
    };
  const { outcome, sentence, action } = judged;
  const grade = judged.grade === "within limits" ? "ask" : judged.grade;
  if (outcome === "finding") return { ...stays, cause: WRONG_FUEL, grade, sentence, action };
  if (outcome === "drain") return { ...today, grade, sentence, action };
  if (outcome === "other grade") return { ...today, grade: "note", sentence, action };
  const dirty = taken.filter((sample) => judgeSample(sample, approved).outcome === "drain");
  if (dirty.length === 0) return undefined;
  return {
    ...today,
    grade: "watch",
    sentence: `${dirty[0]?.look === "grit" ? "Grit" : "Water"} found, clean at sample ${taken.length}.`,
    action: "Drain once more before boarding, and look for the source: cap, seal or the last fuel added.",
  };
}

/** Cause for water that keeps coming, at any drain. */
const WILL_NOT_CLEAR = "fuel.water";

/** Samples from before the wings were rocked, and those since. */
export function aroundRocking(taken: readonly FuelSampleTaken[], rockedAt: string | undefined) {
  if (rockedAt === undefined) return { before: [], since: taken };
  return {
    before: taken.filter((sample) => sample.at <= rockedAt),
    since: taken.filter((sample) => sample.at > rockedAt),
  };
}
