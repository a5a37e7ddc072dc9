import type { EngineFeel } from "../../engine/classify-drop";
import { hasMixtureLever, type RunUpProfile } from "../run-up-profile";

export const EMERGENCIES = ["no drop", "stops on one", "brakes", "fire", "smoke"] as const;
export type Emergency = (typeof EMERGENCIES)[number];

/** What to do now, in a few words, and what is logged afterwards. */
export interface EmergencyCard {
  id: Emergency;
  title: string;
  /** What stands on the button that calls it. */
  button: string;
  steps: string[];
  after: string;
  /** The discrepancy, filled in. */
  text: string;
}

/** What of a type an emergency's steps depend on. */
type Cockpit = Pick<RunUpProfile, "fuelSystem" | "groundLean" | "sideWords">;

/**
 * What to do when a run-up goes wrong, by the controls that the type has: without a mixture lever it is stopped by ignition and fuel, with two ignition
 * switches there is no key. Common practice; the aircraft's own emergency checklist comes first and is said to.
 */
export function emergencyCard(id: Emergency, profile?: Cockpit, where = ""): EmergencyCard {
  const lever = !profile || hasMixtureLever(profile);
  const switches = profile?.sideWords !== undefined;
  const cut = lever
    ? profile?.fuelSystem === "injected"
      ? "Mixture: idle cut-off"
      : "Mixture: cut-off"
    : switches
      ? "Both ignition switches: off"
      : "Ignition: off";
  const at = where ? ` ${where}` : "";
  switch (id) {
    case "no drop":
      return {
        id,
        button: "No drop",
        title: "No drop: it may be live with the ignition off",
        steps: [
          "Throttle: idle",
          lever ? "Stop it with the mixture" : "Fuel: off, and let it run dry",
          switches ? "Ignition switches and master: off" : "Key: off, out, on the coaming",
          "Nobody near the propeller, chocks in",
        ],
        after: "Do not turn the propeller, not even by hand. Maintenance.",
        text: `No magneto drop${at}: magneto not grounded, switch or timing. Propeller treated as live.`,
      };
    case "stops on one":
      return {
        id,
        button: "Stops on one",
        title: "It stops on one magneto",
        steps: [
          "Throttle: idle",
          switches ? "Then, and only after: both switches on" : "Then, and only after: key to both",
          "If it has stopped: leave it stopped",
        ],
        after: "That magneto is dead. Taxi back, or be towed. No flight.",
        text: `Engine stops on one magneto${at}.`,
      };
    case "brakes":
      return {
        id,
        button: "Brakes fail",
        title: "Brakes do not hold",
        steps: [
          "Throttle: idle",
          cut,
          "Steer away from people, into the open",
          lever ? "Master and ignition: off" : "Fuel and master: off",
        ],
        after: "Rather a fence than a propeller. Stay away from it until it stands.",
        text: "Brakes did not hold at the run-up.",
      };
    case "fire":
      return {
        id,
        button: "Fire",
        title: "Fire",
        steps: [
          ...(lever ? [cut] : []),
          "Fuel: off, pump off",
          "Throttle: open until it stops",
          "Ignition and master: off",
          "Out, upwind, extinguisher",
        ],
        after: "People first. Say where you are on the radio only if there is time.",
        text: "Fire at the run-up. Engine stopped, fuel off.",
      };
    case "smoke":
      return {
        id,
        button: "Smoke",
        title: "Smoke in the cockpit",
        steps: [
          "Throttle: idle",
          cut,
          "Master: off",
          "Heat and vents: closed, then doors open",
          "Out, extinguisher in hand",
        ],
        after: "Do not switch anything on again.",
        text: "Smoke in the cockpit at the run-up. Master off.",
      };
  }
}

/** What the engine itself calls for, at once: it stopped on one side, or nothing dropped although the key was turned. */
export function emergencyOf(
  feel: EngineFeel | undefined,
  turnedForSure: boolean,
  dropped: boolean,
): Emergency | undefined {
  if (feel === "quit") return "stops on one";
  return turnedForSure && !dropped ? "no drop" : undefined;
}
