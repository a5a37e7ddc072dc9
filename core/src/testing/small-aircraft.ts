import type { Aircraft, AircraftType, Item } from "../aircraft/aircraft-type";
import type { ComposeInput } from "../checklist/list/compose-list";
import type { EventData, EventType, PreflightEvent } from "../checklist/stream/events";
import { FLIGHT_SUBJECTS } from "../judgement/flight-subjects";
import type { Source } from "../judgement/judgement";

export const source: Source = { kind: "handbook", text: "example", example: true };

export function item(id: string, station: string, more: Partial<Item> = {}): Item {
  return { id, station, kind: "look", title: id, good: "good", why: "why", miss: "ask", ...more };
}

/** A small aircraft with one item of each kind. */
export const type: AircraftType = {
  format: "cravix.aircraft-type/2",
  id: "test-one",
  name: "Test One",
  what: "for tests",
  stations: [
    { id: "left", name: "Left", phase: "lap", x: 0, y: 0 },
    { id: "right", name: "Right", phase: "lap", x: 1, y: 0 },
    { id: "engine", name: "Engine", phase: "fluids" },
    { id: "papers", name: "Papers", phase: "papers" },
  ],
  items: [
    item("docs", "papers", { miss: "stop" }),
    item("lock", "papers", { kind: "remove", ledger: { out: "control lock", how: "off" } }),
    item("left.skin", "left"),
    item("left.hinges", "left", { kind: "count", expected: 3, miss: "stop" }),
    item("right.skin", "right"),
    item("right.frost", "right", { when: ["frost"] }),
    item("primer", "engine", { years: { to: 1985 } }),
    item("oil", "engine", {
      kind: "measure",
      reading: {
        key: "oil.level",
        unit: "US qt",
        decimals: 1,
        plausible: { min: 0, max: 9, why: "The dipstick ends there." },
      },
    }),
  ],
  oil: { minimumQt: 6, maximumQt: 8, containerQt: 1, source },
};

export const aircraft: Aircraft = {
  format: "cravix.aircraft/2",
  registration: "QX-TST",
  typeId: "test-one",
  year: 1998,
  base: "field",
  ownItems: [item("own.rail", "right")],
};

export const LIST_INPUT: ComposeInput = { type, aircraft, conditions: [], openDiscrepancies: [] };
export const streamId = "preflight";

let count = 0;

/** An event one second after the previous one, with a later id. */
export function event<T extends EventType>(eventType: T, data: EventData[T], device = 1): PreflightEvent {
  count++;
  return {
    id: `event-${String(count).padStart(8, "0")}`,
    type: eventType,
    streamId,
    deviceId: `device-${device}`,
    crewId: "ines",
    at: new Date(Date.UTC(2026, 4, 1) + count * 1000).toISOString(),
    data,
  } as PreflightEvent;
}

export const started = () =>
  event("preflight.started", {
    registration: "QX-TST",
    listHash: "hash",
    conditions: [],
    plannedFlightMin: 60,
  });
/** The pilot goes without every assessment, for tests of something else. */
export const allWaived = () =>
  event("assessment.waived", { subjects: [...FLIGHT_SUBJECTS], why: "Not what this test is about." });
export const answered = (itemId: string, device = 1) =>
  event("item.answered", { itemId, outcome: "checked" }, device);
export const postponed = (itemId: string, device = 1) => event("item.postponed", { itemId }, device);
export const undo = (slip: PreflightEvent, device = 1) => event("item.undone", { eventId: slip.id }, device);
