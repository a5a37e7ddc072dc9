export type EngineFeel = "smooth" | "rough" | "quit";

/** The limits of a type's magneto check, rpm. */
export interface DropLimits {
  maxDropRpm?: number;
  /** The greatest difference between the two sides. */
  maxDifferenceRpm?: number;
  /** The smallest drop that can be told from none: by hand the tachometer's division, in a trace what stands out of its scatter. */
  resolutionRpm: number;
}

/** What one side did, rpm. */
export interface Dropped {
  drop: number;
  feel?: EngineFeel;
  /** Whether a change was seen at all; where nobody can tell but by the number, absent. */
  seen?: boolean;
  /** Why the number is no measure. */
  doubt?: string;
}

export type DropState =
  | "quit"
  /** Nothing dropped, or the rpm rose. */
  | "none"
  /** Less than can be told from none. */
  | "too small"
  | "over"
  /** Inside the limit, and more than may be between the sides. */
  | "uneven"
  /** Nothing on file says how much it may be. */
  | "no limit"
  | "usual";

export interface ClassifiedDrop {
  state: DropState;
  /** How much more than the greatest drop; 0 inside it. */
  overRpm: number;
  /** How far the sides are apart, and how much more than they may be; absent where the other side is no measure. */
  apartRpm?: number;
  tooFarApartRpm?: number;
}

/**
 * What a magneto's drop is, beside the other side's and the type's limits: the one place where that is decided, for a number that was typed, one out of
 * a trace, and one that is shown. Ends of limits are inside them. rpm. Valid range: finite numbers; a drop below 0 is a rise. Pure.
 * Source: the limits are the type's; that no drop is a fault and not a good sign is common practice.
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
  // Beside a side on which nothing dropped the other is not uneven: that one is out.
  if (more > 0 && (apart ?? 0) > 0 && other && other.drop >= resolutionRpm)
    return { state: "uneven", ...sides };
  return { state: maxDropRpm === undefined ? "no limit" : "usual", ...sides };
}
