import { otherSide } from "../../engine/side";
import { capital, formatNumber } from "../../units/format";
import type { RunUpStep } from "../reading/found-step";
import type { RunUpProfile } from "../run-up-profile";

/** One prompt of the coach, and what it watches. */
export interface CoachStep {
  step: RunUpStep;
  /** Short text, spoken and displayed. */
  say: string;
  /** What to look at. */
  watch: string;
  /** Maximum wait for a response before asking, seconds; absent for steps without one. */
  patienceS?: number;
}

/** Idle-to-taxi rpm on the ground, to the next hundred: 1,000 for a rated 2,700. Common practice. */
export function groundRpm({ ratedRpm }: Pick<RunUpProfile, "ratedRpm">): number {
  return Math.round((ratedRpm * 0.37) / 100) * 100;
}

/** Sequence of steps for this type. `lean` adds leaning before the drops, at high density altitude. */
export function coachSequence(
  profile: RunUpProfile,
  { lean = false, warm = true }: { lean?: boolean; warm?: boolean } = {},
): CoachStep[] {
  const word = (side: "right" | "left") => profile.sideWords?.[side] ?? side;
  const first = profile.firstSide;
  const other = otherSide(first);
  const rpm = formatNumber(profile.rpm);
  const ground = groundRpm(profile);
  return [
    ...(warm
      ? []
      : [{ step: "warm up" as const, say: "Warm up", watch: "oil temperature into the green arc" }]),
    { step: "run-up", say: `${rpm}`, watch: "hold brakes, look outside", patienceS: 40 },
    ...(lean ? [{ step: "lean" as const, say: "Lean for maximum rpm", watch: "best power, then hold" }] : []),
    { step: first, say: capital(word(first)), watch: "small drop, smooth", patienceS: 9 },
    { step: "both", say: "Both", watch: "rpm back to normal", patienceS: 9 },
    { step: other, say: capital(word(other)), watch: "similar drop, smooth", patienceS: 9 },
    { step: "both", say: "Both", watch: "rpm back to normal", patienceS: 9 },
    ...(profile.propeller === "constant speed"
      ? [
          {
            step: "propeller" as const,
            say: "Propeller back, then forward",
            watch: "rpm down, then up again",
            patienceS: 12,
          },
        ]
      : []),
    ...(profile.heat === "none"
      ? []
      : [
          {
            step: "heat" as const,
            say: profile.heat === "alternate air" ? "Alternate air" : "Carburettor heat",
            watch: profile.heat === "alternate air" ? "small rpm drop" : "rpm drop",
            // An injected engine barely responds to alternate air.
            patienceS: profile.heat === "alternate air" ? 5 : 9,
          },
          { step: "cold" as const, say: "Off again", watch: "rpm back, or higher", patienceS: 9 },
        ]),
    { step: "load", say: "Electrical load on", watch: "voltage steady" },
    { step: "idle", say: "Idle", watch: "engine keeps running", patienceS: 12 },
    { step: "ground", say: formatNumber(ground), watch: "let it settle", patienceS: 12 },
  ];
}

/**
 * Clearing a plug: one lean minute with CHT watched, then the drops again. Source: figures of the type's profile; order by common
 * practice.
 */
export function clearSequence(profile: RunUpProfile): CoachStep[] {
  const { seconds, rpm } = profile.clear;
  const magnetos = coachSequence({ ...profile, heat: "none", propeller: "fixed" }).filter(({ step }) =>
    ["run-up", "right", "left", "both"].includes(step),
  );
  return [
    { step: "clear", say: `${formatNumber(rpm)}, lean`, watch: `${seconds} seconds, watch CHT and oil` },
    ...magnetos,
  ];
}
