import fc from "fast-check";
import { type Ordered, recordOrder } from "./events";

const event = (id: string, at: string, more: Partial<Ordered> = {}): Ordered => ({
  id,
  at: `2026-05-01T${at}:00.000Z`,
  deviceId: "phone",
  streamId: "s",
  ...more,
});
const order = (...events: Ordered[]) => recordOrder(events).map(({ id }) => id);

describe("events are ordered", () => {
  it("by their time, whatever their ids say", () => {
    const fast = event("9", "10:00", { deviceId: "tablet", streamId: "t" });
    expect(order(event("1", "10:05"), fast)).toEqual(["9", "1"]);
  });

  it("by id at the same moment", () => {
    expect(order(event("2", "10:00"), event("1", "10:00"))).toEqual(["1", "2"]);
  });

  it("as their device made them, if its clock was set back in between", () => {
    expect(order(event("1", "12:00"), event("2", "10:05"), event("3", "10:06"))).toEqual(["1", "2", "3"]);
    // Another device answered in between, at the right time.
    expect(order(event("1", "12:00"), event("3", "10:05"), event("2", "10:02", { deviceId: "b" }))).toEqual([
      "2",
      "1",
      "3",
    ]);
  });

  it("by the corrected time, if the clock was fast", () => {
    const corrected = event("9", "10:00", { deviceAt: "2026-05-02T10:00:00.000Z" });
    expect(order(corrected, event("1", "10:05"))).toEqual(["9", "1"]);
    expect(order(corrected, event("1", "09:55"))).toEqual(["1", "9"]);
  });

  it("independently of the order in which they arrive", () => {
    const any = fc.record({
      minute: fc.integer({ min: 10, max: 30 }),
      device: fc.constantFrom("a", "b"),
      late: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 12 }), fc.infiniteStream(fc.nat()), (made, chance) => {
        const events = made.map(({ minute, device, late }, i) =>
          event(String(i).padStart(2, "0"), `10:${minute}`, {
            deviceId: device,
            ...(late && { deviceAt: "2026-05-02T10:00:00.000Z" }),
          }),
        );
        const shuffled = events
          .map((one) => ({ one, key: chance.next().value as number }))
          .sort((a, b) => a.key - b.key)
          .map(({ one }) => one);
        expect(recordOrder(shuffled)).toEqual(recordOrder(events));
      }),
    );
  });
});
