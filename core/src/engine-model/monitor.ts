import { normalNumbers, seededRandom } from "../units/seeded-random";
import { Engine, type Surroundings } from "./engine";
import { type EngineShape, engineOf } from "./engine-shape";
import { Pilot, type PilotStep } from "./pilot";
import type { SimulatedFault } from "./simulated-fault";

/** One sample of the monitor. Absent values: the engine has no such probe. */
export interface MonitorSample {
  /** Seconds since the monitor was switched on. */
  t: number;
  rpm: number;
  map?: number;
  fuelFlow: number;
  oilPressure: number;
  oilTemperature: number;
  volts: number;
  amps: number;
  suction?: number;
  egt: number[];
  cht: number[];
}

export interface MonitorOptions {
  shape: EngineShape;
  runUpRpm: number;
  clearRpm: number;
  /** Rpm for ground leaning; default four ninths of rated speed. */
  groundLeanRpm?: number;
  air: Surroundings;
  fault: SimulatedFault;
  severity: number;
  seed: number;
  /** Instrument noise: 1 as usual, 0 for none. */
  noise?: number;
  /** Samples per second, 1 to 10. */
  hz?: number;
  reactionS?: readonly [number, number];
  warm?: boolean;
  /** Adds individual differences from the seed: cylinders that differ, slow probes, a tachometer in steps. */
  lifelike?: boolean;
}

/** Individual differences of an engine and its monitor. */
interface Individual {
  /** Deviation of each cylinder's EGT from the middle, °F: at power, and independently at idle. */
  power: readonly number[];
  idle: readonly number[];
  /** Time constant of each probe, seconds. */
  lag: readonly number[];
  /** Display step of the tachometer, rpm. */
  step: number;
}

/** Standard deviation of EGT between cylinders of serviceable engines, °F. Common practice. */
const CYLINDERS_F = 30;
/** Display steps of tachometers. */
const STEPS_RPM = [1, 1, 10, 25];

/** Simulated engine monitor with an engine and a pilot, repeatable by its seed. */
export class Monitor {
  readonly engine: Engine;
  readonly pilot: Pilot;
  readonly #hz: number;
  readonly #noise: number;
  readonly #normal: () => number;
  readonly #random: () => number;
  readonly #options: MonitorOptions;
  #lines = 0;
  #wild = 0;
  readonly #own: Individual | undefined;
  /** State of the slow probes. */
  #shown: number[] | undefined;

  constructor(options: MonitorOptions) {
    const { shape, seed, hz = 10, noise = 1 } = options;
    this.#options = options;
    this.#hz = hz;
    this.#noise = noise;
    this.#random = seededRandom(seed + 7919);
    this.#normal = normalNumbers(seededRandom(seed + 104_729));
    const spec = engineOf(shape);
    this.engine = new Engine({ ...options, spec });
    const { runUpRpm, clearRpm, groundLeanRpm = (spec.ratedRpm * 4) / 9, reactionS = [0.6, 2] } = options;
    this.pilot = new Pilot(
      this.engine,
      spec,
      { runUpRpm, clearRpm, groundLeanRpm, reactionS, setsOff: (this.#random() - 0.5) * 40 },
      this.#random,
    );
    this.#own = options.lifelike ? individual(seed, shape.cylinders) : undefined;
    // The engine has been running for a while when monitoring starts.
    for (let i = 0; i < 150; i++) {
      this.pilot.act(-15 + i / 10, 0.1);
      this.engine.advance(0.1);
    }
  }

  get now(): number {
    return this.#lines / this.#hz;
  }

  tell(step: PilotStep): void {
    this.pilot.tell(step, this.now);
  }

  /** Next sample. */
  next(): MonitorSample {
    const dt = 1 / this.#hz;
    const parts = Math.max(1, Math.round(10 / this.#hz));
    for (let i = 0; i < parts; i++) {
      this.pilot.act(this.now + (dt * i) / parts, dt / parts);
      this.engine.advance(dt / parts);
    }
    this.#lines++;
    return this.#sample();
  }

  #sample(): MonitorSample {
    const { shape, fault } = this.#options;
    const read = this.engine.read();
    const off = (sigma: number) => this.#normal() * sigma * this.#noise;
    const round = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(3));
    this.#wild = 0.97 * this.#wild + this.#normal() * 55;
    const egt = this.#exhausts(read.egtF, read.rpm).map((value, i) =>
      round(
        value + off(2.2) + (fault.kind === "sensor fault" && fault.cylinder === i + 1 ? this.#wild - 120 : 0),
        1,
      ),
    );
    const gearing = shape.ratedRpm / 2700;
    return {
      t: Number(this.now.toFixed(2)),
      rpm: this.engine.stopped ? 0 : Math.max(0, round(read.rpm + off(3.5 * gearing), this.#own?.step ?? 1)),
      ...(shape.propeller === "constant speed" || shape.fuelSystem === "carburettor"
        ? { map: round(read.mapInHg + off(0.05), 0.01) }
        : {}),
      fuelFlow: Math.max(0, round(read.fuelFlowGph + off(0.08), 0.01)),
      oilPressure: Math.max(0, round(read.oilPsi + off(0.5), 0.1)),
      oilTemperature: round(read.oilF + off(0.4), 0.1),
      volts: round(read.volts + off(0.04), 0.01),
      amps: round(read.amps + off(0.3), 0.1),
      ...(shape.vacuumPump && { suction: round(read.suctionInHg + off(0.03), 0.01) }),
      egt,
      cht: Array.from(read.chtF, (value) => round(value + off(0.5), 0.1)),
    };
  }

  /** EGT with this engine's individual cylinders and probes. */
  #exhausts(egt: ArrayLike<number>, rpm: number): number[] {
    const own = this.#own;
    const real = Array.from(egt);
    if (!own) return real;
    const { runUpRpm } = this.#options;
    const power = Math.min(1, Math.max(0, (rpm - 0.6 * runUpRpm) / (0.3 * runUpRpm)));
    const aim = real.map(
      (value, i) => value + power * (own.power[i] ?? 0) + (1 - power) * (own.idle[i] ?? 0),
    );
    const before = this.#shown ?? aim;
    this.#shown = aim.map((value, i) => {
      const shown = before[i] ?? value;
      return shown + (value - shown) * (1 - Math.exp(-1 / (this.#hz * (own.lag[i] ?? 1))));
    });
    return this.#shown;
  }
}

function individual(seed: number, cylinders: number): Individual {
  const random = seededRandom(seed + 15_485_863);
  const normal = normalNumbers(random);
  const each = (make: () => number) => Array.from({ length: cylinders }, make);
  return {
    power: each(() => CYLINDERS_F * normal()),
    idle: each(() => CYLINDERS_F * normal()),
    lag: each(() => 1 + 2 * random()),
    step: STEPS_RPM[Math.floor(random() * STEPS_RPM.length)] ?? 1,
  };
}
