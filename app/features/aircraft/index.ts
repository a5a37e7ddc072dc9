/** The group's aircraft with their status. */

export { useAircraftStatuses } from "./use-aircraft-status";
