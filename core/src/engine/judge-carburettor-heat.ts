import type { Judgement } from "../judgement/judgement";
import { assertNotNegative } from "../units/convert";
import { formatNumber } from "../units/format";

/**
 * Judges carburettor heat: the rpm must visibly drop. No drop means a disconnected cable or heat already on. `coldAgainRpm` is
 * the rpm after heat is off again: more than before means there was ice.
 * Valid range: rpm ≥ 0; throws QuantityError otherwise. Source: common practice.
 */
export function judgeCarburettorHeat(baseRpm: number, hotRpm: number, coldAgainRpm?: number): Judgement {
  assertNotNegative("The rpm before", baseRpm);
  assertNotNegative("The rpm with heat", hotRpm);
  const drop = baseRpm - hotRpm;
  const base = {
    id: "carburettor-heat",
    subject: "Carburettor heat",
    scope: "aircraft" as const,
    reading: { value: drop, unit: "rpm" as const },
    limit: "a visible rpm drop",
    source: { kind: "common practice", text: "a visible rpm drop", example: false } as const,
  };
  if (drop <= 0)
    return {
      ...base,
      grade: "ask",
      sentence: "No drop with heat on: the cable is disconnected, or the heat was already on.",
      action:
        "Heat off, wait, then on again and watch the rpm. Still no drop: ask a mechanic before you fly.",
      caution: "Without carburettor heat you cannot clear carburettor ice.",
    };
  if (coldAgainRpm !== undefined && coldAgainRpm > baseRpm)
    return {
      ...base,
      grade: "note",
      sentence: `${formatNumber(drop)} rpm drop, then ${formatNumber(coldAgainRpm - baseRpm)} rpm higher than before: there was ice.`,
      action: "Use heat again just before take-off.",
    };
  return { ...base, grade: "within limits", sentence: `${formatNumber(drop)} rpm drop.` };
}
