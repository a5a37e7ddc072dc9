import { QuantityError } from "../units/convert";
import { formatNumber, formatQuantity } from "../units/format";
import { type Judgement, type Source, unjudged } from "../verdict/judgement";
import { enduranceMin, usableFuelL } from "./endurance";
import { type DipCalibration, volumeFromDip } from "./volume-from-dip";

export interface Tank {
  id: string;
  name: string;
  calibration?: DipCalibration;
  unusableL: number;
  capacityL: number;
}

export interface FuelProfile {
  tanks: Tank[];
  taxiL: number;
  burnLPerH?: { value: number; source: Source };
  imbalanceL?: { value: number; source: Source };
}

/** The minutes that must remain on landing, and the rule that says so. */
export interface FuelReserve {
  minutes: number;
  source: Source;
}

export interface TankReading {
  tankId: string;
  dipCm: number;
}

export interface FuelResult {
  /** Litres in each tank that was dipped and has a calibration. */
  volumesL: Record<string, number>;
  usableL?: number;
  enduranceMin?: number;
  /** Endurance less the reserve: minutes from take-off by which to be on the ground. */
  onGroundWithinMin?: number;
  judgements: Judgement[];
}

export interface FuelInput {
  profile: FuelProfile;
  dips: TankReading[];
  reserve: FuelReserve | undefined;
  plannedFlightMin: number | undefined;
}

const CAUTION = "Dip on level ground, stick straight. Trust no gauge but at empty.";

/**
 * From the dips to litres, endurance and a judgement against the planned flight and the legal reserve; and left against
 * right where the type limits the difference.
 * Valid range: each dip on its tank's stick (QuantityError otherwise is turned into an "unjudged" with its reason, so that one
 * bad number invents no judgement). All tanks must be dipped before the endurance is given.
 * Sources: the profile's calibration and burn; the reserve's rule (for instance 14 CFR 91.151, from memory).
 */
export function judgeFuel({ profile, dips, reserve, plannedFlightMin }: FuelInput): FuelResult {
  const volumesL: Record<string, number> = {};
  const judgements: Judgement[] = [];
  for (const dip of dips) {
    const tank = profile.tanks.find((t) => t.id === dip.tankId);
    if (!tank) continue;
    const subject = `Fuel, ${tank.name}`;
    const reading = { value: dip.dipCm, unit: "cm" } as const;
    if (!tank.calibration) {
      judgements.push(
        unjudged(
          `fuel.${tank.id}`,
          subject,
          `No dipstick calibration on file for the ${tank.name}: the dip cannot be turned into litres.`,
          reading,
        ),
      );
      continue;
    }
    try {
      volumesL[tank.id] = volumeFromDip(tank.calibration, dip.dipCm);
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      judgements.push(unjudged(`fuel.${tank.id}`, subject, error.message, reading));
    }
  }
  const complete = profile.tanks.length > 0 && profile.tanks.every((tank) => volumesL[tank.id] !== undefined);
  if (!complete) return { volumesL, judgements };

  const usableL = profile.tanks.reduce(
    (sum, tank) => sum + usableFuelL(volumesL[tank.id] ?? 0, tank.unusableL),
    0,
  );
  judgements.push(...imbalance(profile, volumesL));
  const reading = { value: usableL, unit: "L" } as const;
  if (!profile.burnLPerH) {
    judgements.push(
      unjudged(
        "fuel.endurance",
        "Fuel for this flight",
        "No planned burn on file for this aircraft: work the endurance out from its handbook.",
        reading,
      ),
    );
    return { volumesL, usableL, judgements };
  }
  const endurance = enduranceMin({ usableL, taxiL: profile.taxiL, burnLPerH: profile.burnLPerH.value });
  const result = { volumesL, usableL, enduranceMin: endurance, judgements };
  if (!reserve) {
    judgements.push(
      unjudged(
        "fuel.endurance",
        "Fuel for this flight",
        "No reserve rule on file: the endurance is not judged.",
        { value: endurance, unit: "min" },
      ),
    );
    return result;
  }
  const onGroundWithinMin = Math.max(0, endurance - reserve.minutes);
  const time = (value: number) => formatQuantity({ value, unit: "min" });
  const sum = `${formatNumber(usableL)} L usable, ${formatNumber(profile.taxiL)} L for taxi, ${formatNumber(profile.burnLPerH.value)} L/h: ${time(endurance)}`;
  if (plannedFlightMin === undefined) {
    judgements.push({
      ...unjudged(
        "fuel.endurance",
        "Fuel for this flight",
        `${sum}. No flight time was planned, so it is not judged against one.`,
        { value: endurance, unit: "min" },
      ),
      source: reserve.source,
    });
    return { ...result, onGroundWithinMin };
  }
  const needed = plannedFlightMin + reserve.minutes;
  const margin = endurance - needed;
  judgements.push({
    id: "fuel.endurance",
    subject: "Fuel for this flight",
    grade: margin >= 0 ? "sound" : "stop",
    reading: { value: endurance, unit: "min" },
    limit: `${time(plannedFlightMin)} flight + ${time(reserve.minutes)} reserve`,
    margin: { value: margin, unit: "min" },
    source: reserve.source,
    sentence:
      margin >= 0
        ? `${sum}, ${time(margin)} more than flight and reserve need.`
        : `${sum}, ${time(-margin)} short of flight and reserve.`,
    ...(margin < 0 && {
      action: `Take on at least ${Math.ceil((-margin / 60) * profile.burnLPerH.value)} L, or plan a shorter flight.`,
    }),
    caution: CAUTION,
  });
  return { ...result, onGroundWithinMin };
}

function imbalance(profile: FuelProfile, volumesL: Record<string, number>): Judgement[] {
  if (!profile.imbalanceL || profile.tanks.length !== 2) return [];
  const [a, b] = profile.tanks as [Tank, Tank];
  const difference = Math.abs((volumesL[a.id] ?? 0) - (volumesL[b.id] ?? 0));
  const margin = profile.imbalanceL.value - difference;
  const reading = { value: difference, unit: "L" } as const;
  return [
    {
      id: "fuel.imbalance",
      subject: "Left and right tank",
      grade: margin >= 0 ? "sound" : "ask",
      reading,
      limit: `at most ${formatQuantity({ value: profile.imbalanceL.value, unit: "L" })} apart`,
      margin: { value: margin, unit: "L" },
      source: profile.imbalanceL.source,
      sentence: `${formatQuantity(reading)} apart.`,
    },
  ];
}
