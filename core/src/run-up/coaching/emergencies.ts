import type { EngineFeel } from "../../engine/classify-drop";
import { hasMixtureLever, type RunUpProfile } from "../run-up-profile";

export const EMERGENCIES = ["no drop", "stops on one", "brakes", "fire", "smoke"] as const;
export type Emergency = (typeof EMERGENCIES)[number];

/** Immediate actions in few words, and what is logged afterwards. */
export interface EmergencyCard {
  id: Emergency;
  title: string;
  /** Button label. */
  button: string;
  steps: string[];
  after: string;
  /** Text of the discrepancy. */
  text: string;
}

/** Features of a type that an emergency's steps depend on. */
type Cockpit = Pick<RunUpProfile, "fuelSystem" | "groundLean" | "sideWords">;

/**
 * Actions when a run-up goes wrong, by the type's controls: without a mixture lever the engine is stopped by ignition and fuel,
 * with two ignition switches there is no key. Common practice; the aircraft's own emergency checklist comes first, as the card
 * says.
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
        title: "No drop: magneto may be live with ignition off",
        steps: [
          "Throttle: idle",
          lever ? "Shut down with the mixture" : "Fuel: off, let the engine run dry",
          switches ? "Ignition switches and master: off" : "Key: off, remove, place on the coaming",
          "Keep everyone clear of the propeller, chocks in",
        ],
        after: "Do not turn the propeller, even by hand. Call maintenance.",
        text: `No magneto drop${at}: magneto not grounded, switch or timing fault. Treat propeller as live.`,
      };
    case "stops on one":
      return {
        id,
        button: "Stops on one",
        title: "Engine stops on one magneto",
        steps: [
          "Throttle: idle",
          switches ? "Only then: both switches on" : "Only then: key to both",
          "If the engine has stopped: do not restart",
        ],
        after: "That magneto is dead. Do not fly. Taxi back or have the aircraft towed.",
        text: `Engine stops on one magneto${at}.`,
      };
    case "brakes":
      return {
        id,
        button: "Brake failure",
        title: "Brakes not holding",
        steps: [
          "Throttle: idle",
          cut,
          "Steer away from people, into the open",
          lever ? "Master and ignition: off" : "Fuel and master: off",
        ],
        after: "Better to hit a fence than people. Stay clear of the propeller until it stops.",
        text: "Brakes did not hold during the run-up.",
      };
    case "fire":
      return {
        id,
        button: "Fire",
        title: "Fire",
        steps: [
          ...(lever ? [cut] : []),
          "Fuel: off, pump off",
          "Throttle: full open until the engine stops",
          "Ignition and master: off",
          "Get out, move upwind, take the extinguisher",
        ],
        after: "People first. Radio your position only if there is time.",
        text: "Fire during the run-up. Engine stopped, fuel off.",
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
          "Cabin heat and vents: closed, then open the doors",
          "Get out, extinguisher in hand",
        ],
        after: "Do not switch anything on again.",
        text: "Smoke in the cockpit during the run-up. Master off.",
      };
  }
}

/** Emergency the trace itself shows: the engine stopped on one side, or nothing dropped although the key was turned. */
export function emergencyOf(
  feel: EngineFeel | undefined,
  turnedForSure: boolean,
  dropped: boolean,
): Emergency | undefined {
  if (feel === "quit") return "stops on one";
  return turnedForSure && !dropped ? "no drop" : undefined;
}
