import { assertFinite } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";
import { type Judgement, type Source, unjudged } from "../verdict/judgement";

export interface AltimeterInput {
  /** Height shown with the current setting, feet. */
  indicatedFt: number;
  /** Known elevation nearest the aircraft, feet. */
  fieldElevationFt: number | undefined;
  tolerance: { feet: number; source: Source } | undefined;
}

/**
 * The altimeter, on the current setting, against the known elevation where the aircraft stands; ends included.
 * Valid range: any finite feet; throws QuantityError otherwise. Without elevation or tolerance: "unjudged".
 * Source: 75 ft, FAA Aeronautical Information Manual 7-2-3 (altimeter setting procedures), from memory; field 23 ft gives −52 to 98.
 */
export function judgeAltimeter({ indicatedFt, fieldElevationFt, tolerance }: AltimeterInput): Judgement {
  assertFinite("The altimeter reading", indicatedFt);
  const reading = { value: indicatedFt, unit: "ft" } as const;
  const id = "altimeter";
  const subject = "Altimeter";
  if (fieldElevationFt === undefined)
    return unjudged(id, subject, "No elevation on file for this field.", reading);
  assertFinite("The field elevation", fieldElevationFt);
  if (!tolerance) return unjudged(id, subject, "No tolerance on file for the altimeter.", reading);
  const error = indicatedFt - fieldElevationFt;
  const margin = tolerance.feet - Math.abs(error);
  const side =
    error === 0
      ? "the field's own elevation"
      : `${formatNumber(Math.abs(error))} ft ${error > 0 ? "high" : "low"}`;
  return {
    id,
    subject,
    grade: margin >= 0 ? "sound" : "ask",
    reading,
    limit: `${formatNumber(fieldElevationFt - tolerance.feet)} to ${formatQuantity({ value: fieldElevationFt + tolerance.feet, unit: "ft" })}`,
    margin: { value: margin, unit: "ft" },
    source: tolerance.source,
    sentence:
      margin >= 0
        ? `Shows ${side}; up to ${formatNumber(tolerance.feet)} ft is accepted.`
        : `Shows ${side}, ${formatNumber(-margin)} ft too far.`,
    ...(margin < 0 && {
      action: "Check the pressure setting, tap the glass, read again. Still out: have it looked at.",
    }),
  };
}
