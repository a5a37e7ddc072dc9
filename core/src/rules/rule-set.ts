import type { Condition } from "../aircraft/aircraft-type";
import type { DeferralRules } from "../airworthiness/deferral/deferral-rules";
import type { FuelReserve } from "../fuel/judge-fuel";
import type { Source } from "../judgement/judgement";
import type { NightBegins } from "../weather/night-begins";

/** Rules as data; an example set ships, others can be added. */
export interface RuleSet {
  format: "cravix.rule-set/1";
  id: string;
  name: string;
  reserves: { when: "day" | "night" | "instrument"; minutes: number; source: Source }[];
  altimeter?: { feet: number; source: Source };
  /** When night begins. */
  night?: { begins: NightBegins; source: Source };
  /** Minimum safety factors for take-off and landing distances. */
  runwayFactors?: { takeOff: number; landing: number; source: Source };
  /** Minimum visibility and ceiling for visual flight, for every pilot. */
  minima?: { visibilityM?: number; ceilingFt?: number; noUnknown?: true; source: Source };
  /** How inoperative equipment may be deferred. */
  deferral?: DeferralRules;
  /** Rule that lets a pilot do and sign preventive maintenance; absent: not allowed. */
  preventive?: { source: Source };
}

/** Minutes of fuel that must remain on landing: the largest reserve that applies today. */
export function reserveFor(
  rules: RuleSet | undefined,
  conditions: readonly Condition[],
): FuelReserve | undefined {
  const applies = rules?.reserves.filter(
    ({ when }) => when === "day" || conditions.includes(when as Condition),
  );
  return applies?.reduce<FuelReserve | undefined>(
    (most, { minutes, source }) => (most && most.minutes >= minutes ? most : { minutes, source }),
    undefined,
  );
}
