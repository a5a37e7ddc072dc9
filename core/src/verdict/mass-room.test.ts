import type { LoadingProfile } from "../mass-and-balance/loading-profile";
import { massRoom, payloadOf } from "./mass-room";

const source = { kind: "handbook" as const, text: "example", example: true };
const loading: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  datum: "firewall",
  weighing: { date: "2025-03-01", emptyKg: 748, armMm: 1000, source },
  stations: [
    { id: "front", name: "front seats", kind: "seat", armMm: 940, pilot: true },
    { id: "bags", name: "baggage", kind: "baggage", armMm: 2420 },
  ],
  tanks: [{ tank: "left", armMm: 1220 }],
  envelope: { corners: [], source },
  maxTakeoffKg: { value: 1100, source },
};
type List = Parameters<typeof massRoom>[0];
type State = Parameters<typeof massRoom>[1];
const list = (more: object = {}): List =>
  ({
    type: { fuel: { grades: ["100LL"], maxTakeoffKg: { value: 1110 } } },
    facts: { "empty.mass": "740" },
    loading,
    ...more,
  }) as unknown as List;
const state = (more: object = {}): State => ({ told: {}, samples: [], ...more }) as unknown as State;
const planned = (stations: Record<string, number>) => state({ plannedLoad: { stations } });

describe("the load that can still be added", () => {
  it("is calculated with the planned load, and with the actual one once entered", () => {
    expect(payloadOf(list(), planned({ front: 150, bags: 20 }))).toEqual({ kg: 170, from: "planned" });
    const both = { ...planned({ front: 150 }), told: { payloadKg: 200 } } as unknown as State;
    expect(payloadOf(list(), both)).toEqual({ kg: 200, from: "told" });
  });

  it("uses the weighing report and the lower of both maximum masses, not an older fact", () => {
    expect(massRoom(list(), planned({ front: 150 }), undefined)?.roomKg).toBe(1100 - 748 - 150);
    expect(
      massRoom(list({ loading: undefined }), state({ told: { payloadKg: 150 } }), undefined)?.roomKg,
    ).toBe(1110 - 740 - 150);
  });

  it("is not shown while the pilot's mass is missing, or nothing is known", () => {
    expect(massRoom(list(), planned({ bags: 20 }), undefined)?.missing).toMatch(/No load entered/);
    expect(massRoom(list(), state(), undefined)?.missing).toMatch(/No load entered/);
  });
});
