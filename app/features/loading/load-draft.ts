import type { LoadingProfile, PlannedLoad } from "@cravix/core/mass-and-balance/loading-profile";

/** Units for entering masses; stored in kilograms. */
export const MASS_UNITS = ["kg", "lb"] as const;
export type MassUnit = (typeof MASS_UNITS)[number];

/** NIST SP 811. */
const KG_PER_LB = 0.45359237;

export interface LoadDraft {
  unit: MassUnit;
  /** Text as entered, by station. */
  stations: Record<string, string>;
  litres: Record<string, string>;
}

/** Maximum plausible mass of one person; more is usually pounds entered as kilograms. */
const HEAVY_PERSON_KG = 160;

const number = (text: string): number => Number(text.trim().replace(",", "."));

/** Fault of an entry; undefined if valid. */
export function entryFault(text: string): string | undefined {
  if (text.trim() === "") return undefined;
  const value = number(text);
  if (!Number.isFinite(value)) return "Enter a number.";
  return value < 0 ? "Enter 0 or more." : value > 5000 ? "Too large. Check the number." : undefined;
}

/** Question about an implausible entry: a seat heavier than people are. */
export function entryDoubt(
  text: string,
  unit: MassUnit,
  { kind, maxKg }: LoadingProfile["stations"][number],
): string | undefined {
  const value = number(text);
  if (kind !== "seat" || unit === "lb" || !Number.isFinite(value)) return undefined;
  const people = maxKg !== undefined && maxKg > HEAVY_PERSON_KG ? 2 : 1;
  return value > people * HEAVY_PERSON_KG ? "Is this in pounds? The fields are in kilograms." : undefined;
}

/** Converts entered masses to the other unit; anything else is unchanged. */
export function inOtherUnit(
  stations: Readonly<Record<string, string>>,
  unit: MassUnit,
): Record<string, string> {
  return Object.fromEntries(
    Object.entries(stations).map(([id, text]) => {
      const same = text.trim() === "" || entryFault(text);
      return [id, same ? text : massText(number(text) * (unit === "lb" ? 1 : KG_PER_LB), unit)];
    }),
  );
}

/** Load from a draft; undefined while an entry is invalid. Empty fields count as zero. */
export function loadOf({ unit, stations, litres }: LoadDraft): PlannedLoad | undefined {
  const all = [...Object.values(stations), ...Object.values(litres)];
  if (all.some((text) => entryFault(text))) return undefined;
  const kg = (text: string) => (text.trim() === "" ? 0 : number(text) * (unit === "lb" ? KG_PER_LB : 1));
  const rounded = (value: number) => Math.round(value * 1000) / 1000;
  return {
    stations: Object.fromEntries(Object.entries(stations).map(([id, text]) => [id, rounded(kg(text))])),
    litres: Object.fromEntries(
      Object.entries(litres).map(([tank, text]) => [tank, text.trim() === "" ? 0 : number(text)]),
    ),
  };
}

const shown = (value: number): string => String(Math.round(value * 10) / 10);

/** Text of a mass in this unit. */
export const massText = (kg: number, unit: MassUnit): string => shown(unit === "lb" ? kg / KG_PER_LB : kg);

/** Draft filled with the planned load, else with the fuel as last measured, spread over the tanks. */
export function draftOfLoad(
  profile: Pick<LoadingProfile, "stations" | "tanks">,
  {
    planned,
    measuredL,
    capacityL = {},
    unit = "kg",
  }: {
    planned?: PlannedLoad | undefined;
    measuredL?: number | undefined;
    capacityL?: Readonly<Record<string, number>>;
    unit?: MassUnit;
  },
): LoadDraft {
  const all = profile.tanks.reduce((sum, { tank }) => sum + (capacityL[tank] ?? 0), 0);
  const share = (tank: string) =>
    measuredL === undefined
      ? 0
      : all > 0
        ? (measuredL * (capacityL[tank] ?? 0)) / all
        : measuredL / profile.tanks.length;
  return {
    unit,
    stations: Object.fromEntries(
      profile.stations.map(({ id }) => {
        const kg = planned?.stations[id] ?? 0;
        return [id, kg === 0 ? "" : massText(kg, unit)];
      }),
    ),
    litres: Object.fromEntries(
      profile.tanks.map(({ tank }) => [tank, shown(planned?.litres?.[tank] ?? share(tank))]),
    ),
  };
}

/** Fault: more than the tank holds. */
export function tankFault(text: string, capacityL: number | undefined): string | undefined {
  return (
    entryFault(text) ??
    (capacityL !== undefined && number(text) > capacityL + 1e-9
      ? `It holds ${shown(capacityL)} L.`
      : undefined)
  );
}
