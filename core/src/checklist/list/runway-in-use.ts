import type { Item, Runway } from "../../aircraft/aircraft-type";
import type { PreflightState } from "../stream/preflight-state";
import type { ComposedList } from "./compose-list";

/** The item whose answer is the runway in use: the one that takes its choices from the airfield. */
export const runwayItem = (list: Pick<ComposedList, "items">): Item | undefined =>
  list.items.find((item) => item.choicesFrom === "runways");

/** The answered designator and its runway; no runway if the airfield has none of that name. */
export function runwayInUse(
  list: Pick<ComposedList, "items" | "airfield">,
  state: Pick<PreflightState, "answers">,
): { id: string; itemId: string; runway?: Runway } | undefined {
  const item = runwayItem(list);
  const id = item && state.answers[item.id]?.value;
  if (!item || !id) return undefined;
  const runway = list.airfield?.runways.find((one) => one.id === id);
  return { id, itemId: item.id, ...(runway && { runway }) };
}
