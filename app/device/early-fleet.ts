import type { Fleet } from "@cravix/contract/client";
import { api } from "./api";

/** Maximum age of the early response, ms. */
const NEW_MS = 5000;

let early: { saidAt: number; fleet: Promise<Fleet> } | undefined;

/** Requests the group before anything is drawn, while the program is still loading. Not needed for a preflight in progress. */
export function requestEarly(): void {
  if (typeof location === "undefined" || location.pathname.startsWith("/preflight/")) return;
  early = { saidAt: Date.now(), fleet: api.fleet() };
  // Ignore here; callers receive the error.
  early.fleet.catch(() => undefined);
}

/** The early request, returned once, and only while fresh. */
export function earlyFleetRequest(): typeof early {
  const asked = early;
  early = undefined;
  return asked && Date.now() - asked.saidAt < NEW_MS ? asked : undefined;
}
