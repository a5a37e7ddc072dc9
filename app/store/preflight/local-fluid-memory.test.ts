import type { AircraftBundle } from "@cravix/contract/client";
import { newId } from "@cravix/contract/client";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { qxTar as tar, tarrow4 } from "@cravix/demo";
import { localFluidMemory, localFluidRows } from "./local-fluid-memory";

const bundle = {
  aircraft: tar,
  type: tarrow4,
  airfield: null,
  rules: null,
  openDiscrepancies: [],
  lastReadings: [{ key: "hours", value: 4228, unit: "h", at: "2026-05-01T08:00:00.000Z", crewId: "ines" }],
  recentPreflights: [],
  fluids: ["left", "right"].map((part) => ({
    registration: "QX-TAR",
    fluid: "fuel",
    entry: "measured",
    part,
    amount: 80,
    unit: "L",
    hours: 4228,
    at: "2026-05-01T08:00:00.000Z",
  })),
  walks: [],
  laps: {},
} as unknown as AircraftBundle;

let minute = 0;
const preflightId = newId(Date.UTC(2026, 4, 2));
function event<T extends EventType>(type: T, data: EventData[T], id = preflightId): PreflightEvent {
  const at = Date.UTC(2026, 4, 2) + ++minute * 60_000;
  return {
    id: newId(at),
    type,
    streamId: id,
    deviceId: id,
    crewId: "ines",
    at: new Date(at).toISOString(),
    data,
  } as PreflightEvent;
}
const preflight = () => [
  event("preflight.started", { registration: "QX-TAR", listHash: "h", conditions: [] }),
  event("reading.taken", { itemId: "papers.hours", key: "hours", value: 4229, unit: "h" }),
  event("reading.taken", { itemId: "left-tank.dip", key: "fuel.dip.left", value: 10, unit: "cm" }),
  event("reading.taken", { itemId: "right-tank.dip", key: "fuel.dip.right", value: 10, unit: "cm" }),
];

test("an unsent preflight counts as the latest measurement, and its hour meter as the latest", () => {
  const before = localFluidMemory(bundle, []);
  expect(before.hours?.value).toBe(4228);
  expect(before.fuel?.tanks.left?.value).toBeCloseTo(80, 6);
  const after = localFluidMemory(bundle, preflight());
  expect(after.hours).toMatchObject({ value: 4229, wasAfter: false });
  // Ten centimetres in the left tank's calibration are 45 L.
  expect(after.fuel?.tanks.left?.value).toBeCloseTo(45, 6);
  expect(after.fuel?.hours).toBe(4229);
});

test("an uplift outside a preflight is in this device's log, for this aircraft only", () => {
  const id = newId(Date.UTC(2026, 4, 3));
  const uplift = (registration: string) =>
    event("fuel.uplifted", { registration, tankId: "left", amount: 20, unit: "L", from: "typed" }, id);
  const rows = localFluidRows(bundle, [...preflight(), uplift("QX-TAR")]);
  expect(rows.filter((row) => row.entry === "uplift")).toHaveLength(1);
  expect(localFluidMemory(bundle, [...preflight(), uplift("QX-TAR")]).fuel?.tanks.left?.value).toBeCloseTo(
    65,
    6,
  );
  expect(localFluidRows(bundle, [uplift("QX-HLD")]).filter((row) => row.entry === "uplift")).toEqual([]);
});

test("entries the server already has are not counted twice", () => {
  const events = preflight();
  const sent = { ...bundle, fluids: localFluidRows(bundle, events) };
  expect(localFluidRows(sent, events)).toHaveLength(sent.fluids.length);
});
