import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { FuelResult } from "../fuel/judge-fuel";
import { missingMasses } from "../mass-and-balance/missing-masses";
import { fuelKgPerL } from "./judges/judge-fluids";

/**
 * What people and baggage weigh, kg: as somebody told it here, else as it was planned in the loading; undefined where neither, or where a plan leaves somebody out.
 * Valid range: a folded preflight. Source: what was told last counts.
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
 * What may still be loaded, kg, below zero where it is too heavy as it stands; or what is missing to tell. Undefined where no greatest take-off mass is
 * on file. Fuel counts as far as somebody looked into the tanks. Source: the lesser of the type's greatest mass and the aircraft's; its weighing report, else its own empty mass.
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
