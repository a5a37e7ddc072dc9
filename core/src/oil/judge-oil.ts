import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";
import { formatQuantity } from "../units/format";
import { type Judgement, limitText, type Source, unjudged } from "../verdict/judgement";

export interface OilProfile {
  minimumQt?: number;
  /** Higher minimum for long or instrument flights, where the type has one. */
  longFlightMinimumQt?: number;
  maximumQt?: number;
  /** What one container holds, US quarts, > 0. */
  containerQt: number;
  source: Source;
}

export interface OilInput {
  levelQt: number;
  profile: OilProfile | undefined;
  longFlight: boolean;
}

export interface OilResult {
  /** Full containers to add now; 0 when nothing should go in. */
  addContainers: number;
  judgement: Judgement;
}

const CAUTION =
  "Only the right grade, from an unopened container; cap finger-tight. Never above the maximum.";

/**
 * Judges an oil level in US quarts against minimum and maximum and says how much to add. A container goes in only when it fits
 * whole under the maximum; below the minimum as many as bring the level to it.
 * Valid range: level ≥ 0, container > 0; throws QuantityError otherwise. Without a minimum and maximum on file: "unjudged".
 * Source: the profile's limits; the rule of the full container is common practice.
 * @example judgeOil({ levelQt: 5.2, profile, longFlight: false }).addContainers // 1, with minimum 6, maximum 8
 */
export function judgeOil({ levelQt, profile, longFlight }: OilInput): OilResult {
  assertFinite("The oil level", levelQt);
  assertNotNegative("The oil level", levelQt);
  const subject = "Oil";
  const reading = { value: levelQt, unit: "US qt" } as const;
  const id = "oil.level";
  if (profile?.minimumQt === undefined || profile.maximumQt === undefined)
    return {
      addContainers: 0,
      judgement: unjudged(
        id,
        subject,
        `${formatQuantity(reading)}: no minimum and maximum on file for this aircraft. Look in its handbook.`,
        reading,
      ),
    };
  const { containerQt, maximumQt, source } = profile;
  if (!(containerQt > 0)) throw new QuantityError("An oil container must hold more than nothing.");
  const useLong = longFlight && profile.longFlightMinimumQt !== undefined;
  const minimumQt = useLong ? (profile.longFlightMinimumQt as number) : profile.minimumQt;
  const q = (value: number) => formatQuantity({ value, unit: "US qt" });
  const limit = `${limitText({ min: minimumQt, max: maximumQt, unit: "US qt", source })}${useLong ? ", long flight" : ""}`;
  const base = { id, subject, reading, limit, source };
  // A hair of tolerance so that 7 + 1 fits under 8 in binary fractions.
  const fits = Math.floor((maximumQt - levelQt) / containerQt + 1e-9);

  if (levelQt > maximumQt)
    return {
      addContainers: 0,
      judgement: {
        ...base,
        grade: "ask",
        margin: { value: maximumQt - levelQt, unit: "US qt" },
        sentence: `${q(levelQt - maximumQt)} above the maximum.`,
        action: "Wipe, lock the stick and read again; ask before flying with too much.",
      },
    };
  if (levelQt < minimumQt) {
    const needed = Math.ceil((minimumQt - levelQt) / containerQt - 1e-9);
    const possible = needed <= fits;
    return {
      addContainers: possible ? needed : 0,
      judgement: {
        ...base,
        grade: "stop",
        margin: { value: levelQt - minimumQt, unit: "US qt" },
        sentence: `${q(minimumQt - levelQt)} below the minimum.`,
        action: possible
          ? `Add ${containers(needed, containerQt)}, wait, read again.`
          : "No full container fits under the maximum: ask before adding part of one.",
        caution: CAUTION,
      },
    };
  }
  const margin = { value: Math.min(levelQt - minimumQt, maximumQt - levelQt), unit: "US qt" as const };
  return {
    addContainers: 0,
    judgement: {
      ...base,
      grade: "sound",
      margin,
      sentence: `${q(levelQt - minimumQt)} above the minimum.`,
      action:
        fits >= 1
          ? `Nothing has to go in. ${containers(fits, containerQt)} would fit under the maximum.`
          : "Add nothing: no full container fits under the maximum.",
    },
  };
}

function containers(count: number, containerQt: number): string {
  return `${count} ${count === 1 ? "container" : "containers"} of ${formatQuantity({ value: containerQt, unit: "US qt" })}`;
}
