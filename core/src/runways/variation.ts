import { model } from "geomagnetism";
import { QuantityError } from "../units/convert";

/**
 * Magnetic variation, degrees, east positive, at a place on a day. Valid range: latitude −90 to 90, longitude −180 to 180, days that the model covers (2024-11-13 to
 * 2029-11-13); throws QuantityError otherwise. Source: World Magnetic Model 2025, by the library geomagnetism.
 */
export function variationDeg({ lat, lon }: { lat: number; lon: number }, at: string): number {
  if (!(Math.abs(lat) <= 90) || !(Math.abs(lon) <= 180))
    throw new QuantityError("A latitude goes to 90, a longitude to 180 degrees.");
  try {
    return model(new Date(at)).point([lat, lon]).decl;
  } catch {
    throw new QuantityError("The variation is not known for that day: read it off the chart.");
  }
}
