import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { type Component, sinceOverhaul, type Totals } from "@cravix/core/airworthiness/meters/component";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";

/** Hours and counts of a component in words. */
export function timesOf(component: Component, totals: Totals, meters: readonly RecordMeter[]): string[] {
  const since = component.sinceOverhaul ? sinceOverhaul(component, totals) : undefined;
  return Object.entries(totals).map(([id, value]) => {
    const meter = meters.find((one) => one.id === id);
    const unit = meter && !isCounted(meter.kind) ? " h" : ` ${meter?.name.toLowerCase() ?? id}`;
    const digits = meter?.decimals ?? 0;
    const overhauled = since?.[id];
    return `${formatNumber(value, digits)}${unit} since new${overhauled === undefined ? "" : `, ${formatNumber(overhauled, digits)}${unit} since overhaul`}`;
  });
}
