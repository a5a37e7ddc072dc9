import type { AircraftBundle } from "@cravix/contract/client";
import { applyVariant } from "@cravix/core/aircraft/apply-variant";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { type FluidRow, fluidLogOf, fluidRowsOf } from "@cravix/core/logs/fluid-rows";
import { type FluidMemory, fluidMemory } from "@cravix/core/memory/fluid-memory";
import { isReadingOf, READING } from "@cravix/core/readings/reading-keys";
import {
  instrumentMemory,
  type MemoryReading,
  pastRunUps,
  REMEMBERED,
} from "@cravix/core/run-up/record/run-up-memory";
import { convert, isConvertible, type Unit } from "@cravix/core/units/convert";

import { localAirworthiness } from "./local-airworthiness";

const sameLine = ({ fluid, entry, part, at, amount, unit }: FluidRow) =>
  [fluid, entry, part, at, amount, unit].join("|");

/** Fuel and oil log of one aircraft as known here: the server's entries plus unsent ones. */
export function localFluidRows(bundle: AircraftBundle, events: readonly PreflightEvent[]): FluidRow[] {
  const { registration } = bundle.aircraft;
  const walks = new Set(
    events.flatMap((e) =>
      "registration" in e.data && e.data.registration === registration ? [e.streamId] : [],
    ),
  );
  const here = [...walks].flatMap((id) => fluidRowsOf(foldPreflight(id, events)));
  const rows = new Map([...(bundle.fluids ?? []), ...here].map((row) => [sameLine(row), row]));
  return [...rows.values()].filter((row) => row.registration === registration);
}

/** True for an hour meter reading, before or after a flight, in a unit of time. */
const isMeter = ({ key, unit }: { key: string; unit: Unit }) =>
  isReadingOf(key, READING.hours, READING.hoursAfter) && isConvertible(unit, "h");

/** Log summary for a preflight starting here, including the hour meter. */
export function localFluidMemory(bundle: AircraftBundle, events: readonly PreflightEvent[]): FluidMemory {
  const { registration } = bundle.aircraft;
  const meter = bundle.lastReadings.filter(isMeter).map(({ key, value, unit, at }) => ({
    value: convert(value, unit, "h"),
    at,
    wasAfter: isReadingOf(key, READING.hoursAfter),
  }));
  const own = new Set(
    events.flatMap((e) =>
      e.type === "preflight.started" && e.data.registration === registration ? [e.streamId] : [],
    ),
  );
  for (const e of events)
    if (e.type === "reading.taken" && own.has(e.streamId) && isMeter(e.data))
      meter.push({
        value: convert(e.data.value, e.data.unit, "h"),
        at: e.at,
        wasAfter: isReadingOf(e.data.key, READING.hoursAfter),
      });
  const logged = loggedHours(bundle, events);
  if (logged) meter.push(logged);
  const hours = meter.sort((a, b) => (a.at < b.at ? -1 : 1)).at(-1);
  const { type } = applyVariant(bundle.type, bundle.aircraft.year);
  const { faults, ...log } = fluidLogOf(type, localFluidRows(bundle, events));
  const memory = fluidMemory(type, { ...log, ...(hours && { hours }) });
  const readings = localMemoryReadings(bundle, events, own);
  return {
    ...memory,
    faults: [...faults, ...memory.faults],
    runUps: pastRunUps(readings, bundle.type.engines),
    ...instrumentMemory(readings, bundle.airfield?.elevationFt),
  };
}

/** Hour meter after the last flight in the technical log, to compare with today's reading. */
function loggedHours(bundle: AircraftBundle, events: readonly PreflightEvent[]) {
  const papers = localAirworthiness(bundle, events);
  const line = papers?.lastLine;
  const meter = papers?.record.meters.find(({ reading }) => reading === READING.hours);
  const left = meter && line?.meters[meter.id]?.in;
  return line && left !== undefined ? { value: left, at: line.on, wasAfter: true } : undefined;
}

/** Readings of earlier preflights, from the server and unsent ones. */
function localMemoryReadings(
  bundle: AircraftBundle,
  events: readonly PreflightEvent[],
  own: ReadonlySet<string>,
): MemoryReading[] {
  const sent = bundle.memory ?? [];
  const known = new Set(sent.map((reading) => reading.preflightId));
  const here = [...own]
    .filter((id) => !known.has(id))
    .flatMap((id) =>
      Object.entries(foldPreflight(id, events).readings)
        .filter(([key]) => isReadingOf(key, ...REMEMBERED))
        .map(([key, { value, unit, at }]) => ({ preflightId: id, key, value, unit, at })),
    );
  return [...sent, ...here];
}
