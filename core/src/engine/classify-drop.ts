export type EngineFeel = "smooth" | "rough" | "quit";

/** The limits of a type's magneto check, rpm. */
export interface DropLimits {
  maxDropRpm?: number;
  /** Maximum difference between the two sides. */
  maxDifferenceRpm?: number;
  /** Smallest distinguishable drop: the tachometer's division by eye, the scatter in a trace. */
  resolutionRpm: number;
}

/** Result of one side, rpm. */
export interface Dropped {
  drop: number;
  feel?: EngineFeel;
  /** Whether a change was seen; absent if only the number is known. */
  seen?: boolean;
  /** Why the number is unreliable. */
  doubt?: string;
}

export type DropState =
  | "quit"
  /** No drop, or the rpm rose. */
  | "none"
  /** Too small to be distinguished from none. */
  | "too small"
  | "over"
  /** Within the limit, but the sides differ too much. */
  | "uneven"
  /** No maximum drop on file. */
  | "no limit"
  | "usual";

export interface ClassifiedDrop {
  state: DropState;
  /** Excess over the maximum drop; 0 within it. */
  overRpm: number;
  /** Difference between the sides, and its excess; absent if the other side is unreliable. */
  apartRpm?: number;
  tooFarApartRpm?: number;
}

/**
 * Classifies a magneto drop by the type's limits and the other side. The single place for this decision, for numbers entered by
 * hand, from a trace, or drawn. Limits are inclusive. rpm. Valid range: finite numbers; a drop below 0 is a rise. Pure.
 * Source: limits are the type's; that no drop is a fault is common practice.
 */
export function classifyDrop(
  made: Dropped,
  other: Dropped | undefined,
  { maxDropRpm, maxDifferenceRpm, resolutionRpm }: DropLimits,
): ClassifiedDrop {
  const overRpm = maxDropRpm === undefined ? 0 : Math.max(0, made.drop - maxDropRpm);
  if (made.feel === "quit") return { state: "quit", overRpm };
  const measures = other && other.seen !== false && other.feel !== "quit" && !other.doubt;
  const apart = measures ? made.drop - other.drop : undefined;
  const more = apart === undefined || maxDifferenceRpm === undefined ? 0 : Math.abs(apart) - maxDifferenceRpm;
  const sides = {
    overRpm,
    ...(apart !== undefined && { apartRpm: Math.abs(apart), tooFarApartRpm: Math.max(0, more) }),
  };
  if (made.seen === false || made.drop <= 0) return { state: "none", ...sides };
  if (made.drop < resolutionRpm) return { state: "too small", ...sides };
  if (overRpm > 0) return { state: "over", ...sides };
  // If the other side did not drop at all, that side is at fault, and this one is not uneven.
  if (more > 0 && (apart ?? 0) > 0 && other && other.drop >= resolutionRpm)
    return { state: "uneven", ...sides };
  return { state: maxDropRpm === undefined ? "no limit" : "usual", ...sides };
}
