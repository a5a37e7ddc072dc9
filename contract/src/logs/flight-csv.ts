import { isCounted, type RecordMeter, type TechnicalLogEntry } from "@cravix/core";
import Papa from "papaparse";

/** The columns that every technical log has; each meter adds its own: `hours out`, `hours in`, `landings`. */
export const FLIGHT_COLUMNS = ["off", "on", "registration", "from", "to", "pilot", "crew"] as const;
const LAST_COLUMNS = [
  "take-offs at night",
  "landings at night",
  "fuel added L",
  "fuel remaining L",
  "oil added US qt",
  "remarks",
] as const;

/** The columns of one aircraft's log, in their order. */
export function flightColumns(meters: readonly RecordMeter[]): string[] {
  return [
    ...FLIGHT_COLUMNS,
    ...meters.flatMap(({ id, kind }) => (isCounted(kind) ? [id] : [`${id} out`, `${id} in`])),
    ...LAST_COLUMNS,
  ];
}

/** A technical log as comma-separated text, in the order given; what looks like a formula is defused. */
export function flightCsv(
  lines: readonly Omit<TechnicalLogEntry, "id">[],
  meters: readonly RecordMeter[],
): string {
  const data = lines.map((line) => [
    line.off,
    line.on,
    line.registration,
    line.from,
    line.to,
    line.pilot,
    (line.crew ?? []).join("; "),
    ...meters.flatMap(({ id, kind }) =>
      isCounted(kind) ? [line.counts[id] ?? ""] : [line.meters[id]?.out ?? "", line.meters[id]?.in ?? ""],
    ),
    line.night?.takeOffs ?? "",
    line.night?.landings ?? "",
    line.fuel?.addedL ?? "",
    line.fuel?.leftL ?? "",
    line.oilAddedQt ?? "",
    line.remarks ?? "",
  ]);
  return `${Papa.unparse({ fields: flightColumns(meters), data }, { escapeFormulae: true, newline: "\n" }).trimEnd()}\n`;
}
