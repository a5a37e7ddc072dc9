import type { FlightKind } from "@cravix/core/airworthiness/due/due-item";

const ASKED: Partial<Record<FlightKind, string>> = {
  day: "Is part of the flight by day?",
  "towered airfield": "To or from an airfield with a tower?",
  "transponder airspace": "Through airspace that requires a transponder?",
  "every seat occupied": "Is every seat occupied?",
  passengers: "With passengers?",
  hire: "Is it flown for hire?",
  test: "Is it a test flight?",
  ferry: "Is it a ferry flight?",
  towing: "Does it tow?",
  instruction: "Is it flown for instruction?",
  private: "Is it a private flight?",
};

/** Question whether a flight is of this kind. */
export const flightQuestion = (kind: FlightKind): string => ASKED[kind] ?? `Is it a ${kind} flight?`;
