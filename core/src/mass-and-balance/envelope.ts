import type { LoadingProfile } from "./loading-profile";

type Corners = LoadingProfile["envelope"]["corners"];

/** Mass and moment: kg, kg·mm. */
export interface MassMoment {
  kg: number;
  moment: number;
}

/** Allowed arms at a mass, mm; undefined above and below the envelope. Source: linear between its corners. */
export function spanAt(corners: Corners, kg: number): { forward: number; aft: number } | undefined {
  const arms: number[] = [];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length] ?? a;
    if (a.kg === b.kg) {
      if (Math.abs(a.kg - kg) < 1e-9) arms.push(a.armMm, b.armMm);
      return;
    }
    const part = (kg - a.kg) / (b.kg - a.kg);
    if (part >= -1e-12 && part <= 1 + 1e-12) arms.push(a.armMm + part * (b.armMm - a.armMm));
  });
  return arms.length === 0 ? undefined : { forward: Math.min(...arms), aft: Math.max(...arms) };
}

/** Smallest margin to either limit along a path, mm, negative outside; and where. */
export interface EnvelopeMargin {
  forwardMm: number;
  forwardAt: MassMoment;
  aftMm: number;
  aftAt: MassMoment;
  /** Part of the path is lighter or heavier than the envelope covers. */
  beyond: boolean;
}

/**
 * Margins along a straight path of mass and moment, as fuel is burnt at one arm: the whole path, not only its ends. Between two
 * corners the distance to a limit is p/m + q − a − b·m, so it is smallest at an end, at a corner's mass, or at m = √(−p/b).
 * Complexity: O(corners²).
 * Source: arithmetic of mass and moment.
 */
export function marginsAlong(corners: Corners, from: MassMoment, to: MassMoment): EnvelopeMargin {
  const [low, high] = from.kg < to.kg ? [from, to] : [to, from];
  const q = high.kg === low.kg ? 0 : (high.moment - low.moment) / (high.kg - low.kg);
  const p = low.moment - q * low.kg;
  const breaks = corners.map(({ kg }) => kg).filter((kg) => kg > low.kg && kg < high.kg);
  const masses = [...new Set([low.kg, ...breaks, high.kg])].sort((a, b) => a - b);
  const turning = masses.slice(1).flatMap((to, i) => {
    const from = masses[i] as number;
    const [a, b] = [spanAt(corners, from + 1e-9), spanAt(corners, to - 1e-9)];
    if (!a || !b) return [];
    return (["forward", "aft"] as const).flatMap((side) => {
      const slope = (b[side] - a[side]) / (to - from);
      const square = -p / slope;
      const at = Math.sqrt(square);
      return square > 0 && at > from && at < to ? [at] : [];
    });
  });
  const margin: EnvelopeMargin = {
    forwardMm: Number.POSITIVE_INFINITY,
    forwardAt: from,
    aftMm: Number.POSITIVE_INFINITY,
    aftAt: from,
    beyond: false,
  };
  const way =
    high.kg === low.kg ? [from, to] : [...masses, ...turning].map((kg) => ({ kg, moment: p + q * kg }));
  for (const { kg, moment } of way) {
    const span = spanAt(corners, kg);
    if (!span) {
      margin.beyond = true;
      continue;
    }
    const arm = moment / kg;
    if (arm - span.forward < margin.forwardMm)
      Object.assign(margin, { forwardMm: arm - span.forward, forwardAt: { kg, moment } });
    if (span.aft - arm < margin.aftMm)
      Object.assign(margin, { aftMm: span.aft - arm, aftAt: { kg, moment } });
  }
  return margin;
}
