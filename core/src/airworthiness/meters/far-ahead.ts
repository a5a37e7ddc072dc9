import { formatNumber } from "../../units/format";
import { isCounted, type Meter } from "./meter";

/** How far a total may be ahead of the record: flights not logged yet, or flown elsewhere. Common practice. */
const AHEAD = { hours: 200, count: 1000 };

/**
 * Why a total is so far ahead of the one on record that it must be a typing error; undefined if it is plausible. Hours or counts. A
 * total behind the record is plausible here: work may be entered after later flights.
 */
export function farAhead(
  { name, kind, decimals }: Pick<Meter, "name" | "kind" | "decimals">,
  onRecord: number,
  total: number,
): string | undefined {
  if (total <= onRecord + (isCounted(kind) ? AHEAD.count : AHEAD.hours)) return undefined;
  return `${name}: ${formatNumber(total, decimals)} is far above the ${formatNumber(onRecord, decimals)} on record. Check the reading, or log the missing flights first.`;
}
