import { type LocalDate, localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { useAppSelector } from "../state/hooks";
import type { RootState } from "../state/root-state";
import { bundleOf, fleetOf } from "./server-state";

/** Time zone in which the group's days end: that of its first aircraft on this device; the device's own if none is known. */
export function groupTimeZone(state: RootState): string {
  const zones = (fleetOf(state)?.aircraft ?? []).flatMap(
    ({ registration }) => zoneOnFile(state, registration) ?? [],
  );
  return zones[0] ?? deviceTimeZone();
}

let ofDevice: string | undefined;
/** Asking the browser is slow, and its time zone rarely changes while a page is open. */
function deviceTimeZone(): string {
  ofDevice ??= Intl.DateTimeFormat().resolvedOptions().timeZone;
  return ofDevice;
}

const zoneOnFile = (state: RootState, registration: string): string | undefined =>
  bundleOf(state, registration)?.papers?.record.timeZone;

/** Time zone of an aircraft's base; the group's if none is on file. */
export const baseTimeZone = (state: RootState, registration: string): string =>
  zoneOnFile(state, registration) ?? groupTimeZone(state);

/** The day in a time zone. */
export const todayIn = (timeZone: string | undefined, now = Date.now()): LocalDate =>
  localDate(new Date(now).toISOString(), timeZone);

/** The day at an aircraft's base; without an aircraft, the group's. */
export const useToday = (registration?: string): LocalDate =>
  todayIn(
    useAppSelector((state) =>
      registration === undefined ? groupTimeZone(state) : baseTimeZone(state, registration),
    ),
  );
