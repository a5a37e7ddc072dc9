import fc from "fast-check";
import type { EventData, PreflightEvent } from "../stream/events";
import type { DiscrepancyEvent } from "../stream/fold-discrepancies";
import { openAfterEvents } from "./open-after-events";

const ID = "01900000-0000-7000-8000-000000000001";
const OTHER = "01900000-0000-7000-8000-000000000002";
let n = 100;
function event<T extends DiscrepancyEvent["type"]>(
  type: T,
  data: Omit<EventData[T], "discrepancyId">,
  discrepancyId = ID,
): PreflightEvent {
  n += 1;
  const id = type === "discrepancy.opened" ? discrepancyId : `01900000-0000-7000-8000-000000000${n}`;
  return {
    id,
    streamId: discrepancyId,
    stream: "aircraft",
    deviceId: ID,
    crewId: "ines",
    at: new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString(),
    type,
    data: { discrepancyId, ...data },
  } as unknown as PreflightEvent;
}
const opened = (id = ID, registration = "QX-TST") =>
  event("discrepancy.opened", { registration, stationId: "nose", text: "Oil leak", grade: "watch" }, id);
const after = (known: Parameters<typeof openAfterEvents>[0], events: readonly PreflightEvent[]) =>
  openAfterEvents(known, events, { registration: "QX-TST", nameOf: (id) => id });

const regraded = () => event("discrepancy.regraded", { grade: "ask", why: "grown" });
const measured = () =>
  event("discrepancy.observed", { itemId: "nose.oil", state: "grown", measure: "4 drops" });
const limited = () => event("discrepancy.limited", { most: 5, unit: "drops", source: "manual" });
const closed = () => event("discrepancy.closed", { how: "seal replaced" });
const merged = () => event("discrepancy.merged", { into: OTHER });
const deferred = () => event("discrepancy.deferred", { basis: "optional", rules: "r", for: ["day"] });
const photographed = () =>
  event("discrepancy.photographed", { photograph: `sha256:${n}`, width: 10, height: 10 });

test.each<[string, () => PreflightEvent, object]>([
  ["a new grade", regraded, { grade: "ask" }],
  ["a new measure", measured, { measure: "4 drops" }],
  ["a limit", limited, { limit: { most: 5, unit: "drops", source: "manual" } }],
  ["a deferral", deferred, { deferral: { basis: "optional", rules: "r", for: ["day"] } }],
])("%s on this device counts on what the server knows", (_, make, change) => {
  const known = after([], [opened()]);
  expect(after(known, [make()])).toEqual([{ ...known[0], ...change }]);
});

test.each([
  ["signed off", closed],
  ["merged", merged],
])("%s on this device, it is open no longer", (_, make) => {
  const known = after([], [opened()]);
  expect(known).toHaveLength(1);
  expect(after(known, [make()])).toEqual([]);
});

test("of another aircraft nothing is added, and nothing unknown is changed", () => {
  expect(after([], [opened(OTHER, "QX-ELS"), regraded()])).toEqual([]);
});

test("whenever the server answered, what happened since leads to the same result", () => {
  const makers = [regraded, measured, limited, closed, merged, deferred, photographed];
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: makers.length - 1 }), { maxLength: 12 }),
      fc.nat(),
      (kinds, cut) => {
        const events = [opened(), opened(OTHER), ...kinds.flatMap((kind) => makers[kind]?.() ?? [])];
        const at = 2 + (cut % (events.length - 1));
        expect(after(after([], events.slice(0, at)), events.slice(at))).toEqual(after([], events));
      },
    ),
  );
});
