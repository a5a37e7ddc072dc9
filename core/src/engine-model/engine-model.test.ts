import {
  AT_IDLE,
  Engine,
  engineOf,
  Monitor,
  propellerTorque,
  type SimulatedFault,
  simulateRunUp,
} from "./index";

const FOUR = {
  cylinders: 4,
  fuelSystem: "carburettor",
  propeller: "fixed",
  volts: 28,
  ratedRpm: 2700,
  vacuumPump: true,
} as const;
const SEA = { pressureHpa: 1013.25, celsius: 15, humidity: 0.5 };

function runUp(
  fault: SimulatedFault = { kind: "none" },
  air = SEA,
  seed = 5,
  shape: Parameters<typeof engineOf>[0] = FOUR,
) {
  const engine = new Engine({ spec: engineOf(shape), air, fault, severity: 0.6, seed });
  engine.controls.throttle = 0.2;
  for (let i = 0; i < 600; i++) {
    engine.advance(0.1);
    engine.controls.throttle = Math.min(
      1,
      Math.max(0, engine.controls.throttle + ((1800 - engine.meanRpm) / 1800) * 0.02),
    );
  }
  engine.advance(5);
  const on = (set: Partial<Engine["controls"]>, seconds = 9) => {
    const before = engine.meanRpm;
    const egt = Float64Array.from(engine.read().egtF);
    Object.assign(engine.controls, set);
    engine.advance(seconds);
    return {
      drop: before - engine.meanRpm,
      egt: Array.from(engine.read().egtF, (value, i) => value - (egt[i] as number)),
    };
  };
  return { engine, on };
}

describe("the propeller", () => {
  it("takes torque with the square of speed and with density: published, any propeller text", () => {
    const spec = engineOf(FOUR);
    const at = (rpm: number, density = 1.225) => propellerTorque(spec, density, (rpm * Math.PI) / 30);
    expect(at(1800) / at(900)).toBeCloseTo(4, 9);
    expect(at(1800, 1.0065) / at(1800)).toBeCloseTo(1.0065 / 1.225, 9);
  });

  it("with 11 % less torque at one throttle turns 5.7 % slower where torque hardly varies with rpm (cube law)", () => {
    const spec = engineOf(FOUR);
    const needed = propellerTorque(spec, 1.225, 188.5) * 0.89;
    let omega = 188.5;
    for (let i = 0; i < 60; i++) omega *= Math.sqrt(needed / propellerTorque(spec, 1.225, omega));
    expect(1 - omega / 188.5).toBeCloseTo(0.057, 3);
  });
});

describe("the engine on the ground", () => {
  it("drops on one magneto in the common range, all exhausts hotter, and comes back (common practice: 50 to 175 rpm; exhaust rises on one)", () => {
    for (const seed of [1, 2, 3, 4, 5, 6]) {
      const { on, engine } = runUp({ kind: "none" }, SEA, seed);
      const base = engine.meanRpm;
      for (const ignition of ["right", "left"] as const) {
        const one = on({ ignition });
        expect(one.drop).toBeGreaterThan(30);
        expect(one.drop).toBeLessThan(125);
        for (const rise of one.egt) expect(rise).toBeGreaterThan(25);
        on({ ignition: "both" });
        expect(Math.abs(engine.meanRpm - base)).toBeLessThan(5);
      }
    }
  });

  it("loses a cylinder on one side with a dead plug: big drop, that exhaust falls, the others rise", () => {
    const { on } = runUp({ kind: "dead plug", side: "left", cylinder: 3 });
    const right = on({ ignition: "right" });
    on({ ignition: "both" });
    const left = on({ ignition: "left" });
    expect(left.drop).toBeGreaterThan(right.drop + 70);
    expect(left.egt[2]).toBeLessThan(-200);
    for (const i of [0, 1, 3]) expect(left.egt[i]).toBeGreaterThan(20);
  });

  it("does not drop where the other magneto is not grounded, and runs on with the key off", () => {
    const { on, engine } = runUp({ kind: "hot magneto", side: "left" });
    expect(Math.abs(on({ ignition: "right" }).drop)).toBeLessThan(3);
    expect(on({ ignition: "left" }).drop).toBeGreaterThan(30);
    on({ ignition: "off" }, 6);
    expect(engine.meanRpm).toBeGreaterThan(1500);
    const healthy = runUp();
    healthy.on({ ignition: "off" }, 12);
    expect(healthy.engine.stopped).toBe(true);
  });

  it("drops more, rich, in thin air; leaning brings it back (common practice above 3,000 to 5,000 ft)", () => {
    const high = { pressureHpa: 795, celsius: 20, humidity: 0.3 };
    const rich = runUp({ kind: "none" }, high).on({ ignition: "right" }).drop;
    const low = runUp().on({ ignition: "right" }).drop;
    expect(rich).toBeGreaterThan(low * 1.4);
    const leaned = runUp({ kind: "none" }, high);
    leaned.on({ mixture: 0.62 }, 15);
    expect(leaned.on({ ignition: "right" }).drop).toBeLessThan(rich * 0.75);
  });

  it("falls with carburettor heat and comes back; with ice it ends higher than it began; with the cable off nothing happens", () => {
    const healthy = runUp();
    expect(healthy.on({ heat: true }).drop).toBeGreaterThan(30);
    expect(healthy.on({ heat: false }).drop).toBeLessThan(-30);
    const iced = runUp({ kind: "carburettor ice" }, { ...SEA, celsius: 6 });
    const before = iced.engine.meanRpm;
    iced.on({ heat: true }, 20);
    iced.on({ heat: false });
    expect(iced.engine.meanRpm).toBeGreaterThan(before + 40);
    expect(Math.abs(runUp({ kind: "heat cable off" }).on({ heat: true }).drop)).toBeLessThan(3);
  });

  it("charges at 27 to 29 V on a 28-volt system and at half that on 14 (common practice), and not with the alternator off", () => {
    const { engine } = runUp();
    expect(engine.read().volts).toBeGreaterThan(27);
    expect(engine.read().volts).toBeLessThan(29);
    const small = runUp({ kind: "none" }, SEA, 5, { ...FOUR, volts: 14 }).engine.read().volts;
    expect(small).toBeGreaterThan(13.5);
    expect(small).toBeLessThan(14.5);
    const off = runUp({ kind: "alternator off line" }).engine.read();
    expect(off.volts).toBeLessThan(26);
    expect(off.amps).toBeLessThan(-3);
  });

  it("keeps heads under 400 °F at the run-up and does not quit at idle (common practice)", () => {
    const { engine, on } = runUp();
    expect(Math.max(...engine.read().chtF)).toBeLessThan(400);
    on({ ...AT_IDLE }, 8);
    expect(engine.meanRpm).toBeGreaterThan(500);
    expect(engine.meanRpm).toBeLessThan(850);
  });

  it("stops on the dead side; a real stop has no oil pressure and the manifold at the pressure outside", () => {
    const { engine, on } = runUp({ kind: "dead magneto", side: "right" });
    on({ ignition: "right" }, 12);
    expect(engine.read().rpm).toBe(0);
    expect(engine.read().oilPsi).toBe(0);
    expect(engine.read().mapInHg).toBeCloseTo(29.92, 1);
  });

  it("clears a fouled plug in a lean minute and never a dead one", () => {
    const plan = {
      steps: [
        { step: "run-up" as const, seconds: 12 },
        { step: "clear" as const, seconds: 90 },
        { step: "run-up" as const, seconds: 12 },
        { step: "left" as const, seconds: 9 },
      ],
    };
    const last = (kind: "fouled plug" | "dead plug") => {
      const options = {
        shape: FOUR,
        runUpRpm: 1800,
        clearRpm: 2000,
        air: SEA,
        fault: { kind, side: "left", cylinder: 2 } as const,
        severity: 0.4,
        seed: 3,
      };
      const { before, settled } = simulateRunUp(options, plan).rpmAt.at(-1) as {
        before: number;
        settled: number;
      };
      return before - settled;
    };
    expect(last("fouled plug")).toBeLessThan(125);
    expect(last("dead plug")).toBeGreaterThan(150);
  });

  it("rejects an engine that is none", () => {
    expect(() => engineOf({ ...FOUR, cylinders: 1 })).toThrow("2 to 14 cylinders");
    expect(() => engineOf({ ...FOUR, ratedRpm: 900 })).toThrow("rated speed");
  });
});

describe("the monitor", () => {
  const options = {
    shape: FOUR,
    runUpRpm: 1800,
    clearRpm: 2000,
    air: SEA,
    fault: { kind: "none" } as const,
    severity: 0,
    seed: 11,
  };

  it("gives the same lines for the same seed, at the rate that was asked for", () => {
    const lines = (hz: number) => {
      const monitor = new Monitor({ ...options, hz });
      return Array.from({ length: 30 }, () => monitor.next());
    };
    expect(lines(10)).toEqual(lines(10));
    expect(lines(2)[29]?.t).toBeCloseTo(15, 6);
    expect(lines(10)[29]?.t).toBeCloseTo(3, 6);
  });

  it("has no suction without a pump and six cylinders where there are six", () => {
    const six = new Monitor({ ...options, shape: { ...FOUR, cylinders: 6, vacuumPump: false } }).next();
    expect(six.suction).toBeUndefined();
    expect(six.egt).toHaveLength(6);
  });
});
