import { model } from "geomagnetism";
import { QuantityError } from "../units/convert";

/**
 * Magnetic variation, degrees, east positive, at a place and date. Valid range: latitude −90 to 90, longitude −180 to 180, dates
 * covered by the model (2024-11-13 to 2029-11-13); throws QuantityError otherwise. Source: World Magnetic Model 2025, through the
 * library geomagnetism.
 */
export function variationDeg({ lat, lon }: { lat: number; lon: number }, at: string): number {
  if (!(Math.abs(lat) <= 90) || !(Math.abs(lon) <= 180))
    throw new QuantityError("Latitude must be from −90 to 90 degrees, longitude from −180 to 180.");
  try {
    return model(new Date(at)).point([lat, lon]).decl;
  } catch {
    throw new QuantityError("Variation not available for that date. Read it from the chart.");
  }
}
