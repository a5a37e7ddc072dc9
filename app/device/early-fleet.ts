import type { Fleet } from "@cravix/contract/client";
import { api } from "./api";

/** Older than this an answer is not what somebody asks for now, ms. */
const NEW_MS = 5000;

let early: { saidAt: number; fleet: Promise<Fleet> } | undefined;

/** Asks the server for the group before anything is drawn: it answers while the program is still being made ready. A walk that goes on does not need it. */
export function askEarly(): void {
  if (typeof location === "undefined" || location.pathname.startsWith("/preflight/")) return;
  early = { saidAt: Date.now(), fleet: api.fleet() };
  // Whoever asks is told; nobody asking is no fault.
  early.fleet.catch(() => undefined);
}

/** What was asked for early, and when; once, and only while it is new. */
export function fleetAskedEarly(): typeof early {
  const asked = early;
  early = undefined;
  return asked && Date.now() - asked.saidAt < NEW_MS ? asked : undefined;
}
