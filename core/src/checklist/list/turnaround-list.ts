import { type AircraftType, CONDITIONS, type Condition } from "../../aircraft/aircraft-type";
import { ComposeError } from "./compose-error";

/** Conditions that rule out a turnaround. */
export const NO_TURNAROUND: readonly Condition[] = ["first of the day", "after maintenance", "just rigged"];

/** Conditions available for this type: without those marked as not offered, and turnaround only if the type supports it. */
export function offeredConditions(type: Pick<AircraftType, "notOffered" | "items">): Condition[] {
  return CONDITIONS.filter(
    (condition) =>
      !type.notOffered?.some((not) => not.condition === condition) &&
      (condition !== "turnaround" || type.items.some((item) => item.turnaround)),
  );
}

export function assertTurnaround(type: AircraftType, conditions: readonly Condition[]): void {
  if (!type.items.some((item) => item.turnaround))
    throw new ComposeError(`${type.name} has no turnaround checklist. Do the full checklist.`);
  const against = NO_TURNAROUND.find((condition) => conditions.includes(condition));
  if (against)
    throw new ComposeError(`A turnaround is not possible with “${against}”. Do the full checklist.`);
}
