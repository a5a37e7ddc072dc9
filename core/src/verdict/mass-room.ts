import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { FuelResult } from "../fuel/judge-fuel";
import { missingMasses } from "../mass-and-balance/missing-masses";
import { fuelKgPerL } from "./judges/fuel-input";

/**
 * Mass of people and baggage, kg: as entered here, else as planned; undefined without either, or if a plan is incomplete.
 * Valid range: a folded preflight. Source: the latest entry counts.
 */
export function payloadOf(
  { loading }: Pick<ComposedList, "loading">,
  { told, plannedLoad }: Pick<PreflightState, "told" | "plannedLoad">,
): { kg: number; from: "told" | "planned" } | undefined {
  if (told.payloadKg !== undefined) return { kg: told.payloadKg, from: "told" };
  if (!loading || !plannedLoad || missingMasses(loading, plannedLoad).length > 0) return undefined;
  return { kg: Object.values(plannedLoad.stations).reduce((sum, kg) => sum + kg, 0), from: "planned" };
}

/**
 * Mass that may still be loaded, kg, negative if too heavy; or what is missing to calculate it. Undefined without a maximum
 * take-off mass on file. Includes fuel of inspected tanks. Source: the lower of the type's and the aircraft's maximum mass; its
 * weighing report, else its own empty mass.
 */
export function massRoom(
  list: Pick<ComposedList, "type" | "facts" | "loading">,
  state: PreflightState,
  fuel: Pick<FuelResult, "volumesL"> | undefined,
): { roomKg: number; missing?: undefined } | { missing: string; roomKg: 0 } | undefined {
  const greatest = [list.type.fuel?.maxTakeoffKg?.value, list.loading?.maxTakeoffKg.value].filter(
    (kg) => kg !== undefined,
  );
  if (greatest.length === 0) return undefined;
  const empty = list.loading?.weighing.emptyKg ?? Number(list.facts?.["empty.mass"]);
  if (!Number.isFinite(empty))
    return { missing: "No empty mass on file for this aircraft: the mass is not checked.", roomKg: 0 };
  const payload = payloadOf(list, state);
  if (!payload) return { missing: "No load entered: the mass is not checked.", roomKg: 0 };
  const litres = Object.values(fuel?.volumesL ?? {}).reduce((a, b) => a + b, 0);
  return { roomKg: Math.min(...greatest) - empty - payload.kg - litres * fuelKgPerL(list, state) };
}
