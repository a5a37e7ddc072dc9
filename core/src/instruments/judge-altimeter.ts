import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import { settingForHpa, stationPressureHpa } from "../run-up/density-altitude";
import { assertFinite } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";

export interface AltimeterInput {
  /** Height shown at the current setting, feet. */
  indicatedFt: number;
  /** Known elevation nearest the aircraft, feet. */
  fieldElevationFt: number | undefined;
  /** Altimeter setting, hPa, if recorded. */
  settingHpa?: number;
  tolerance: { feet: number; source: Source } | undefined;
}

/**
 * Judges the altimeter, at the current setting, against the known elevation; limits inclusive. If it is out and the setting is
 * known, the setting at which it would be right is given: a misset knob looks like that.
 * Valid range: any finite feet, settings of 850 to 1,090 hPa; throws QuantityError otherwise. Without elevation or tolerance:
 * "unjudged".
 * Source: 75 ft, FAA Aeronautical Information Manual 7-2-3 (altimeter setting procedures), from memory; field 23 ft gives −52 to
 * 98.
 */
export function judgeAltimeter({
  indicatedFt,
  fieldElevationFt,
  settingHpa,
  tolerance,
}: AltimeterInput): Judgement {
  assertFinite("The altimeter reading", indicatedFt);
  const reading = { value: indicatedFt, unit: "ft" } as const;
  const id = "altimeter";
  const subject = "Altimeter";
  if (fieldElevationFt === undefined)
    return notAssessed(id, subject, "No elevation on file for this field.", reading);
  assertFinite("The field elevation", fieldElevationFt);
  if (!tolerance) return notAssessed(id, subject, "No tolerance on file for the altimeter.", reading);
  const error = indicatedFt - fieldElevationFt;
  const margin = tolerance.feet - Math.abs(error);
  const side =
    error === 0
      ? "exactly the field elevation"
      : `${formatNumber(Math.abs(error))} ft ${error > 0 ? "high" : "low"}`;
  return {
    id,
    subject,
    scope: "aircraft",
    grade: margin >= 0 ? "within limits" : "ask",
    reading,
    limit: `${formatNumber(fieldElevationFt - tolerance.feet)} to ${formatQuantity({ value: fieldElevationFt + tolerance.feet, unit: "ft" })}`,
    margin: { value: margin, unit: "ft" },
    source: tolerance.source,
    sentence:
      margin >= 0
        ? `Reads ${side}; up to ${formatNumber(tolerance.feet)} ft is accepted.`
        : `Reads ${side}, ${formatNumber(-margin)} ft outside tolerance.${rightOn(indicatedFt, fieldElevationFt, settingHpa)}`,
    ...(margin < 0 && {
      action: "Check the pressure setting, tap the glass, read again. If still out, have it checked.",
    }),
  };
}

/** Setting at which it would show the field elevation: within reason, a misset knob is more likely than a broken capsule. */
function rightOn(indicatedFt: number, elevationFt: number, settingHpa: number | undefined): string {
  if (settingHpa === undefined || Math.abs(indicatedFt - elevationFt) > 1500) return "";
  const right = settingForHpa(stationPressureHpa(settingHpa, indicatedFt), elevationFt);
  return ` It is set to ${formatNumber(settingHpa)} hPa; at ${formatNumber(right)} hPa it would read correctly.`;
}
