import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { FuelResult } from "../fuel/judge-fuel";
import { fuelKgPerL } from "./judges/judge-fluids";

/**
 * What may still be loaded, kg, below zero where it is too heavy as it stands; or what is missing to tell. Undefined where no greatest take-off mass is
 * on file. Fuel counts as far as somebody looked into the tanks. Source: the type's greatest mass; the aircraft's own empty mass.
 */
export function massRoom(
  list: Pick<ComposedList, "type" | "facts">,
  state: PreflightState,
  fuel: Pick<FuelResult, "volumesL"> | undefined,
): { roomKg: number; missing?: undefined } | { missing: string; roomKg: 0 } | undefined {
  const most = list.type.fuel?.maxTakeoffKg;
  if (!most) return undefined;
  const empty = Number(list.facts?.["empty.mass"]);
  if (!Number.isFinite(empty))
    return { missing: "No empty mass on file for this aircraft: the mass is not checked.", roomKg: 0 };
  const { payloadKg } = state.told;
  if (payloadKg === undefined) return { missing: "Not given: the mass is not checked.", roomKg: 0 };
  const litres = Object.values(fuel?.volumesL ?? {}).reduce((a, b) => a + b, 0);
  return { roomKg: most.value - empty - payloadKg - litres * fuelKgPerL(list, state) };
}
