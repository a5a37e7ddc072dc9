import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import type { Judgement } from "../../judgement/judgement";
import { oilAdditionFault } from "../../oil/judge-oil";
import { compareOilUse, judgeOilUse } from "../../oil/judge-oil-use";
import { ONLY_ENGINE } from "../../readings/reading-keys";
import { convert, isConvertible } from "../../units/convert";

/**
 * Judges added oil that should not have been: another grade, an opened container, too much. It is on record and leads to "ask".
 * Quarts. Source: the type's maximum and grades; unopened containers by common practice.
 */
export function judgeOilAdded(list: ComposedList, state: PreflightState): Judgement[] {
  const { oil } = list.type;
  return state.oilAdded.flatMap(({ eventId, qt, grade, sealed, engine, before }): Judgement[] => {
    const beforeQt =
      before && isConvertible(before.unit, "US qt") ? convert(before.value, before.unit, "US qt") : undefined;
    const against = oilAdditionFault({ qt, sealed, ...(grade && { grade }) }, oil, beforeQt);
    if (!against) return [];
    return [
      {
        id: `oil.added.${eventId}`,
        subject: engine ? `Oil added, ${engine} engine` : "Oil added",
        // It stays in the engine whether anyone flies or not.
        scope: "aircraft",
        grade: "ask",
        sentence: against,
        action: "The oil is already in. Ask the mechanic before engine start.",
      },
    ];
  });
}

/** Judges oil consumption by the log, and compares a twin's engines. */
export function judgeOilLog(
  list: ComposedList,
  levels: Record<string, number>,
  hoursNow: number | undefined,
  addedQt: Record<string, number>,
): Judgement[] {
  const { oil } = list.type;
  const memory = list.memory?.oil;
  if (!oil || !memory) return [];
  const made = Object.entries(levels).flatMap(([engine, levelQt]): Judgement[] => {
    const own = memory[engine];
    if (!own) return [];
    const last = own.last;
    const since =
      last && hoursNow !== undefined && hoursNow > last.hours
        ? {
            hours: hoursNow - last.hours,
            usedQt: last.levelQt + last.addedQt + (addedQt[engine] ?? 0) - levelQt,
          }
        : undefined;
    const judged = judgeOilUse(own, levelQt, oil.minimumQt, since);
    if (!judged) return [];
    return engine === ONLY_ENGINE
      ? [judged]
      : [{ ...judged, id: `${judged.id}.${engine}`, subject: `${judged.subject}, ${engine} engine` }];
  });
  const [left, right] = ["left", "right"].map((engine) => memory[engine]);
  const sides =
    left && right && levels.left !== undefined && levels.right !== undefined && compareOilUse(left, right);
  return sides ? [...made, sides] : made;
}
