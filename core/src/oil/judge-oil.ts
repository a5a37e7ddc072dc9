import { type Judgement, limitText, notAssessed, type Source } from "../judgement/judgement";
import { assertFinite, assertNotNegative, QuantityError } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";

export interface OilProfile {
  minimumQt?: number;
  /** Higher minimum for long or instrument flights, if the type has one. */
  longFlightMinimumQt?: number;
  maximumQt?: number;
  /** Level above which the engine throws oil overboard; below the maximum. Filled only to here. */
  throwsOffQt?: number;
  /** Capacity of one container, US quarts, > 0. */
  containerQt: number;
  /** Whether the dipstick is marked for hot or cold oil; absent: no difference. */
  markedFor?: OilHeat;
  /** Reduction of a hot reading, while oil is still up in the engine, US quarts. */
  hotReadsLowerQt?: number;
  /** Approved grades, as on the bottle; the usual one first. */
  grades?: string[];
  /** Dry sump: read only after the propeller was turned. */
  drySump?: boolean;
  source: Source;
}

export const OIL_HEATS = ["hot", "cold"] as const;
export type OilHeat = (typeof OIL_HEATS)[number];

export interface OilInput {
  levelQt: number;
  profile: OilProfile | undefined;
  longFlight: boolean;
  heat?: OilHeat;
}

export interface OilResult {
  /** Full containers to add now; 0 if none should be added. */
  addContainers: number;
  /** Level corrected to the dipstick's marking. */
  levelQt: number;
  judgement: Judgement;
}

const CAUTION =
  "Use only the right grade from an unopened container. Cap finger-tight. Never fill above the maximum.";

/**
 * Judges an oil level in US quarts against minimum and maximum, and calculates how much to add. A container is added only if it
 * fits whole below the maximum, or below the level at which the engine throws oil overboard; below the minimum, as many as reach
 * it. A reading hot on a dipstick marked for cold oil, or the reverse, is corrected, but
 * the correction never makes a reading below the minimum pass.
 * Valid range: level ≥ 0, container > 0; throws QuantityError otherwise. Without minimum and maximum on file: "unjudged".
 * Source: the profile's limits; adding full containers only is common practice.
 * @example judgeOil({ levelQt: 5.2, profile, longFlight: false }).addContainers // 1, with minimum 6, maximum 8
 */
export function judgeOil({ levelQt: read, profile, longFlight, heat }: OilInput): OilResult {
  assertFinite("The oil level", read);
  assertNotNegative("The oil level", read);
  const subject = "Oil";
  const reading = { value: read, unit: "US qt" } as const;
  const id = "oil.level";
  if (profile?.minimumQt === undefined || profile.maximumQt === undefined)
    return {
      addContainers: 0,
      levelQt: read,
      judgement: notAssessed(
        id,
        subject,
        `${formatQuantity(reading)}: no minimum and maximum on file for this aircraft. Check its handbook.`,
        reading,
      ),
    };
  const { containerQt, maximumQt, source } = profile;
  if (!(containerQt > 0)) throw new QuantityError("The oil container size must be more than zero.");
  const { levelQt, words } = asMarked(read, heat, profile);
  const useLong = longFlight && profile.longFlightMinimumQt !== undefined;
  const minimumQt = useLong ? (profile.longFlightMinimumQt as number) : profile.minimumQt;
  const ceilingQt = Math.min(maximumQt, profile.throwsOffQt ?? maximumQt);
  const ceiling =
    ceilingQt < maximumQt ? `${q(ceilingQt)}, above which this engine throws oil overboard` : "the maximum";
  const limit = `${limitText({ min: minimumQt, max: maximumQt, unit: "US qt", source })}${useLong ? ", long flight" : ""}`;
  const base = { id, subject, scope: "day" as const, reading, limit, source };
  // Tolerance for floating-point error, so that 7 + 1 fits under 8.
  const fits = Math.max(0, Math.floor((ceilingQt - levelQt) / containerQt + 1e-9));

  if (levelQt > maximumQt)
    return {
      addContainers: 0,
      levelQt,
      judgement: {
        ...base,
        grade: "ask",
        margin: { value: maximumQt - levelQt, unit: "US qt" },
        sentence: `${words}${q(levelQt - maximumQt)} above the maximum.`,
        action:
          "Wipe the dipstick, seat it fully and read again. Ask a mechanic before flying with too much oil.",
      },
    };
  if (levelQt < minimumQt) {
    const needed = Math.ceil((minimumQt - levelQt) / containerQt - 1e-9);
    const possible = needed <= fits;
    return {
      addContainers: possible ? needed : 0,
      levelQt,
      judgement: {
        ...base,
        grade: "stop",
        margin: { value: levelQt - minimumQt, unit: "US qt" },
        sentence: `${words}${q(minimumQt - levelQt)} below the minimum.`,
        action: possible
          ? `Add ${containers(needed, containerQt)}, wait, read again.`
          : `A full container would exceed ${ceiling}. Ask a mechanic before adding part of one.`,
        caution: CAUTION,
      },
    };
  }
  const margin = { value: Math.min(levelQt - minimumQt, maximumQt - levelQt), unit: "US qt" as const };
  // An estimate never turns a reading below the minimum into a pass.
  if (read < minimumQt)
    return {
      addContainers: 0,
      levelQt,
      judgement: {
        ...base,
        grade: "ask",
        margin: { value: read - minimumQt, unit: "US qt" },
        sentence: `${words}The dipstick itself shows ${q(minimumQt - read)} below the minimum.`,
        action: "Read it again when the engine is cold, or ask a mechanic.",
        caution: CAUTION,
      },
    };
  return {
    addContainers: 0,
    levelQt,
    judgement: {
      ...base,
      grade: "within limits",
      margin,
      sentence: `${words}${q(levelQt - minimumQt)} above the minimum.`,
      action:
        fits >= 1
          ? `No oil needed. ${containers(fits, containerQt)} would fit below ${ceiling}.`
          : `Add no oil: a full container would exceed ${ceiling}.`,
    },
  };
}

/** Corrects a reading to the dipstick's marking: hot readings are lower by the oil still up in the engine. */
function asMarked(readQt: number, heat: OilHeat | undefined, profile: OilProfile) {
  const { markedFor, hotReadsLowerQt = 0 } = profile;
  if (!heat || !markedFor || heat === markedFor || hotReadsLowerQt === 0)
    return { levelQt: readQt, words: "" };
  const levelQt = Math.max(0, heat === "hot" ? readQt + hotReadsLowerQt : readQt - hotReadsLowerQt);
  return {
    levelQt,
    words: `Read ${heat}, but the dipstick is marked for ${markedFor} oil: ${formatNumber(readQt, 1)} corrects to ${q(levelQt)}. `,
  };
}

const q = (value: number) => formatQuantity({ value, unit: "US qt" });

function containers(count: number, containerQt: number): string {
  return `${count} ${count === 1 ? "container" : "containers"} of ${q(containerQt)}`;
}

/**
 * Why this oil must not be added: an unapproved grade, an opened container, or more than fits. Undefined if it is fine. Valid
 * range: amounts ≥ 0; throws QuantityError otherwise. Source: the profile; using unopened containers is common practice.
 */
export function oilAdditionFault(
  oil: { qt: number; grade?: string; sealed: boolean },
  profile: OilProfile | undefined,
  levelQt: number | undefined,
): string | undefined {
  assertNotNegative("The addition", oil.qt);
  if (oil.qt === 0) return "Enter how much oil was added.";
  if (!oil.sealed) return "An opened container may be contaminated. Use an unopened one.";
  if (profile?.grades?.length && oil.grade && !profile.grades.includes(oil.grade))
    return `${oil.grade} is not approved for this engine. Approved: ${profile.grades.join(", ")}.`;
  const ceiling = Math.min(
    profile?.maximumQt ?? Number.POSITIVE_INFINITY,
    profile?.throwsOffQt ?? Number.POSITIVE_INFINITY,
  );
  if (levelQt !== undefined && levelQt + oil.qt > ceiling + 1e-9)
    return `${q(levelQt)} plus ${q(oil.qt)} is ${q(levelQt + oil.qt)}: over the limit of ${q(ceiling)}.`;
  return undefined;
}
