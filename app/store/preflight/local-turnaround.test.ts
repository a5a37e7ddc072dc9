import { type AircraftBundle, newId } from "@cravix/contract/client";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { trainerBundle } from "../../testing/trainer-bundle";
import { localTurnaroundReason } from "./local-turnaround";

const START = Date.UTC(2026, 4, 2, 8);
const NOW = START + 3 * 3_600_000;
const walkId = newId(START);
function event<T extends EventType>(type: T, minute: number, data: EventData[T], streamId = walkId) {
  const at = START + minute * 60_000;
  return {
    id: minute === 0 ? walkId : newId(at),
    type,
    streamId,
    deviceId: walkId,
    crewId: "ines",
    at: new Date(at).toISOString(),
    data,
  } as PreflightEvent;
}
const begun = event("preflight.started", 0, { registration: "QX-TAR", listHash: "h", conditions: [] });
const signed = event("verdict.signed", 20, { verdict: "go", decision: "fly", reasons: [] });
const putAway = event("item.answered", 120, { itemId: "after.written", outcome: "checked" });
const problem = (events: PreflightEvent[], bundle: AircraftBundle = trainerBundle, crewId = "ines") =>
  localTurnaroundReason(bundle, events, crewId, NOW);

test("flown and secured on this device, not sent yet: a turnaround for the same pilot", () => {
  expect(problem([begun, signed, putAway])).toBeUndefined();
  expect(problem([begun, signed, putAway], trainerBundle, "maren")).toMatch(/Another pilot/);
  expect(problem([begun, signed])).toMatch(/after-flight checks first/);
});

test("known to the server, secured here since", () => {
  const summary = {
    id: walkId,
    registration: "QX-TAR",
    crewId: "ines",
    startedAt: begun.at,
    lastAt: signed.at,
    conditions: [],
    answered: 160,
    found: 0,
    verdict: "go" as const,
    decision: "fly" as const,
    signedAt: signed.at,
  };
  const bundle: AircraftBundle = { ...trainerBundle, recentPreflights: [summary] };
  expect(problem([], bundle)).toMatch(/after-flight checks first/);
  expect(problem([putAway], bundle)).toBeUndefined();
});

test("a sign-off on this aircraft is work on it, one on another aircraft is not", () => {
  const id = newId(START - 1000);
  const closed = event(
    "discrepancy.closed",
    130,
    { discrepancyId: id, how: "lamp changed" },
    newId(START + 1),
  );
  const open = {
    id,
    stationId: "tail",
    text: "lamp",
    grade: "note" as const,
    openedAt: begun.at,
    openedBy: "A",
  };
  expect(problem([begun, signed, putAway, closed])).toBeUndefined();
  expect(problem([begun, signed, putAway, closed], { ...trainerBundle, openDiscrepancies: [open] })).toMatch(
    /Maintenance was done/,
  );
});

test("one refuelling of several tanks counts once; other aircraft do not count", () => {
  const uplift = (minute: number, registration: string, tankId: string) =>
    event(
      "fuel.uplifted",
      minute,
      { registration, tankId, amount: 20, unit: "L", from: "typed" },
      newId(START + minute),
    );
  expect(
    problem([begun, signed, putAway, uplift(125, "QX-HLD", "left"), uplift(126, "QX-HLD", "right")]),
  ).toBeUndefined();
  expect(
    problem([begun, signed, putAway, uplift(125, "QX-TAR", "left"), uplift(126, "QX-TAR", "right")]),
  ).toBeUndefined();
});
