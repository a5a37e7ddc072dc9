import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { toCsv } from "./to-csv";

/** Columns of every technical log; each meter adds its own: `hours out`, `hours in`, `landings`. */
export const FLIGHT_COLUMNS = ["off", "on", "registration", "from", "to", "pilot", "crew"] as const;
const LAST_COLUMNS = [
  "take-offs",
  "full-stop landings",
  "take-offs at night",
  "landings at night",
  "full-stop landings at night",
  "fuel added L",
  "fuel remaining L",
  "oil added US qt",
  "ground run",
  "remarks",
] as const;

/** Columns of one aircraft's log, in order. */
export function flightColumns(meters: readonly RecordMeter[]): string[] {
  return [
    ...FLIGHT_COLUMNS,
    ...meters.flatMap(({ id, kind }) => (isCounted(kind) ? [id] : [`${id} out`, `${id} in`])),
    ...LAST_COLUMNS,
  ];
}

/** Technical log as CSV, in the order given; text that looks like a formula is escaped. */
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
    line.takeOffs ?? "",
    line.fullStops ?? "",
    line.night?.takeOffs ?? "",
    line.night?.landings ?? "",
    line.night?.fullStops ?? "",
    line.fuel?.addedL ?? "",
    line.fuel?.leftL ?? "",
    line.oilAddedQt ?? "",
    line.ground ? "yes" : "",
    line.remarks ?? "",
  ]);
  return toCsv(flightColumns(meters), data);
}
