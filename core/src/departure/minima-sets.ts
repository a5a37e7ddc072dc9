import type { AircraftType } from "../aircraft/aircraft-type";
import { type MinimaSet, minimaFor } from "../minima/minima";
import type { RuleSet } from "../rules/rule-set";

/** All limits for a flight: rule, aircraft, authorisation and personal minimums. `day`: YYYY-MM-DD. Complexity: O(sets). */
export function minimaSets({
  rules,
  type,
  persons = [],
  registration,
  day,
}: {
  rules?: Pick<RuleSet, "minima"> | null | undefined;
  type: Pick<AircraftType, "crosswind">;
  persons?: readonly MinimaSet[];
  registration: string;
  day: string;
}): MinimaSet[] {
  const { source, ...least } = rules?.minima ?? {};
  return [
    ...(source ? [{ of: "rule" as const, minima: least, source }] : []),
    ...(type.crosswind
      ? [
          {
            of: "aircraft" as const,
            minima: { crosswindKt: type.crosswind.kt },
            source: type.crosswind.source,
          },
        ]
      : []),
    ...minimaFor(persons, registration, day),
  ];
}
