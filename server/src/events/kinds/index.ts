import type { EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { COMPONENT_KINDS } from "./component-kinds";
import { DISCREPANCY_KINDS } from "./discrepancy-kinds";
import type { EventKind } from "./event-kind";
import { FLIGHT_KINDS } from "./flight-kinds";
import { PERSON_KINDS } from "./person-kinds";
import { PREFLIGHT_KINDS } from "./preflight-kinds";
import { WORK_KINDS } from "./work-kinds";
import { WORKSHOP_KINDS } from "./workshop-kinds";

/**
 * Everything the server knows about each kind of event: its fields, who may record it, what it must fit, and the tables it changes.
 * Appending, rebuilding and checking the record follow this table. A missing kind does not compile.
 */
export const EVENT_KINDS: { [T in EventType]: EventKind<T> } = {
  ...PREFLIGHT_KINDS,
  ...DISCREPANCY_KINDS,
  ...FLIGHT_KINDS,
  ...WORK_KINDS,
  ...COMPONENT_KINDS,
  ...PERSON_KINDS,
  ...WORKSHOP_KINDS,
};

/** The entry of an event. TypeScript cannot follow the pairing of kind and event through a union. */
export const kindOf = (event: PreflightEvent) => EVENT_KINDS[event.type] as unknown as EventKind<EventType>;
