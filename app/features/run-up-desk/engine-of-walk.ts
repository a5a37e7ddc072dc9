import type { Item } from "@cravix/core";
import { convert, engineKey, READING } from "@cravix/core";
import type { DiagnosisContext } from "@cravix/core/diagnosis";
import { densityAltitudeFt, type RunUpProfile, stationPressureHpa } from "@cravix/core/run-up";
import type { Walk } from "../walk/use-preflight";

/** The engine that is run up on this page: its figures, limits and the items that it answers. */
export interface WalkEngine {
  name: string | undefined;
  profile: RunUpProfile;
  limits: { maxDropRpm?: number; maxDifferenceRpm?: number; resolutionRpm: number };
  /** Where what is read is written down: the item of the base rpm. */
  baseItem: Item;
  densityAltitudeFt: number | undefined;
  /** Today's altimeter setting, hPa, where it was written down; and the pressure at the field. */
  settingHpa: number | undefined;
  pressureHpa: number | undefined;
  /** Whether the mixture is leaned before the drops, today. */
  lean: boolean;
  context: DiagnosisContext;
}

/** Where no setting is known. */
const STANDARD_HPA = 1013.25;

/** Icing in a carburettor is taken to be possible between these, °C, whatever the dew point: the published charts reach about so far. */
const ICING: readonly [number, number] = [-10, 22];

/** The engine of this name in this walk; undefined where the type has no run-up on file. */
export function engineOfWalk(
  { list, state }: Pick<Walk, "list" | "state">,
  name: string | undefined,
): WalkEngine | undefined {
  const { runUp: profile, magnetos } = list.type;
  const key = engineKey(READING.magnetoBase, name);
  const baseItem = list.items.find((item) => item.reading?.key === key);
  if (!profile || !baseItem) return undefined;
  const { celsius } = state;
  const elevation = list.airfield?.elevationFt;
  const setting = state.readings[READING.altimeterSetting];
  const settingHpa = setting && convert(setting.value, setting.unit, "hPa");
  const pressureHpa =
    elevation === undefined ? undefined : stationPressureHpa(settingHpa ?? STANDARD_HPA, elevation);
  const high =
    celsius === undefined || pressureHpa === undefined
      ? undefined
      : Math.round(densityAltitudeFt(pressureHpa, celsius));
  const lean = high !== undefined && high >= profile.leanAboveFt;
  return {
    name,
    profile,
    limits: {
      ...(magnetos?.maxDropRpm !== undefined && { maxDropRpm: magnetos.maxDropRpm }),
      ...(magnetos?.maxDifferenceRpm !== undefined && { maxDifferenceRpm: magnetos.maxDifferenceRpm }),
      resolutionRpm: magnetos?.resolutionRpm ?? 10,
    },
    baseItem,
    densityAltitudeFt: high,
    settingHpa,
    pressureHpa,
    lean,
    context: {
      cylinders: profile.cylinders,
      fuelSystem: profile.fuelSystem,
      propeller: profile.propeller,
      suction: profile.suction,
      ...(high !== undefined && !lean && { highAndRich: false }),
      ...(celsius !== undefined && { icingLikely: celsius >= ICING[0] && celsius <= ICING[1] }),
    },
  };
}

/** What the sides are called on this type. */
export function sideWords({ sideWords: words }: RunUpProfile): { right: string; left: string } {
  return words ?? { right: "right", left: "left" };
}
