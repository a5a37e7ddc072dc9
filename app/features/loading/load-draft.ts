import type { LoadingProfile, PlannedLoad } from "@cravix/core";

/** In which unit masses are entered; they are kept in kilograms. */
export const MASS_UNITS = ["kg", "lb"] as const;
export type MassUnit = (typeof MASS_UNITS)[number];

/** NIST SP 811. */
const KG_PER_LB = 0.45359237;

export interface LoadDraft {
  unit: MassUnit;
  /** As it was typed, by place. */
  stations: Record<string, string>;
  litres: Record<string, string>;
}

/** Nobody who sits in an aircraft weighs more; most often it is pounds in a list of kilograms. */
const HEAVY_PERSON_KG = 160;

const number = (text: string): number => Number(text.trim().replace(",", "."));

/** What is wrong with an entry, at its place; undefined where nothing is. */
export function entryFault(text: string): string | undefined {
  if (text.trim() === "") return undefined;
  const value = number(text);
  if (!Number.isFinite(value)) return "Enter a number.";
  return value < 0 ? "Enter 0 or more." : value > 5000 ? "Too large. Check the number." : undefined;
}

/** What may be meant otherwise: a seat that holds more than people weigh. */
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

/** Masses as they were typed, in the other unit; what is no number stays as it is. */
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

/** The draft as a load; undefined while something in it is no number. What nobody has entered is nothing. */
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

/** A mass as it stands in a field of this unit. */
export const massText = (kg: number, unit: MassUnit): string => shown(unit === "lb" ? kg / KG_PER_LB : kg);

/** What is known already, written into the fields: what was planned, else the fuel as it was measured last, all tanks alike as far as they hold it. */
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

/** More than a tank holds. */
export function tankFault(text: string, capacityL: number | undefined): string | undefined {
  return (
    entryFault(text) ??
    (capacityL !== undefined && number(text) > capacityL + 1e-9
      ? `It holds ${shown(capacityL)} L.`
      : undefined)
  );
}
