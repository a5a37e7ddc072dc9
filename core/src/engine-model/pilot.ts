import type { Engine } from "./engine";
import type { EngineSpec } from "./engine-shape";

/** Steps a pilot can be asked to do. */
export const PILOT_STEPS = [
  "warm up",
  "run-up",
  "right",
  "left",
  "both",
  "heat",
  "cold",
  "propeller",
  "load",
  "lean",
  "set lean",
  "peak",
  "enrich",
  "clear",
  "idle",
  "ground",
  "stop",
] as const;
export type PilotStep = (typeof PILOT_STEPS)[number];

export interface PilotHabits {
  runUpRpm: number;
  /** Rpm for clearing a plug: slightly above the run-up rpm. */
  clearRpm: number;
  /** Rpm at which the mixture is leaned on the ground. */
  groundLeanRpm: number;
  /** Seconds between a prompt and the hand moving. */
  reactionS: readonly [number, number];
  /** Error in setting the run-up rpm. */
  setsOff: number;
}

/** Final mixture after leaning: slightly richer than peak EGT. */
const RICH_AGAIN = 1.06;

/** Simulates a pilot's hand: follows one prompt after another like a person, and records when it really moved. */
export class Pilot {
  /** Control movements, with times in seconds. */
  readonly moved: { step: PilotStep; at: number }[] = [];
  readonly #engine: Engine;
  readonly #spec: EngineSpec;
  readonly #habits: PilotHabits;
  readonly #random: () => number;
  #step: PilotStep = "ground";
  #moves = 0;
  #acted = true;
  #aim: number | undefined;
  #egtPeak = 0;
  #fastest = 0;

  constructor(engine: Engine, spec: EngineSpec, habits: PilotHabits, random: () => number) {
    this.#engine = engine;
    this.#spec = spec;
    this.#habits = habits;
    this.#random = random;
    this.#aim = spec.ratedRpm * 0.37;
  }

  get step(): PilotStep {
    return this.#step;
  }

  tell(step: PilotStep, at: number): void {
    const [least, most] = this.#habits.reactionS;
    this.#step = step;
    this.#moves = at + least + (most - least) * this.#random();
    this.#acted = false;
  }

  /** Moves the controls for the next `dt` seconds up to `at`. */
  act(at: number, dt: number): void {
    const { controls } = this.#engine;
    if (!this.#acted && at >= this.#moves) {
      this.#acted = true;
      this.moved.push({ step: this.#step, at });
      this.#move();
    }
    if (this.#acted && this.#step === "propeller") controls.propeller = at - this.#moves < 3.5 ? 0.1 : 1;
    if (this.#acted && (this.#step === "lean" || this.#step === "clear")) this.#lean(at);
    if (this.#acted && this.#step === "peak") this.#leanPast(at);
    if (
      this.#acted &&
      this.#step === "enrich" &&
      at - this.#moves < 3 &&
      this.#engine.mixtureRatio < RICH_AGAIN
    )
      controls.mixture = Math.min(1, controls.mixture + 0.05 * dt * 2);
    if (this.#aim === undefined || controls.ignition !== "both") return;
    // Adjusts the throttle until the rpm is steady, then leaves it.
    const rpm = this.#engine.meanRpm;
    const off = (this.#aim - rpm) / this.#aim;
    if (Math.abs(off) < 0.004 && at - this.#moves > 3) {
      this.#aim = undefined;
      return;
    }
    const hand = Math.max(-0.12, Math.min(0.12, off * 0.45));
    controls.throttle = Math.min(1, Math.max(0.02, controls.throttle + hand * dt));
  }

  #move(): void {
    const { controls } = this.#engine;
    const { runUpRpm, clearRpm, setsOff } = this.#habits;
    // Every other step has the propeller lever forward.
    controls.propeller = 1;
    switch (this.#step) {
      case "warm up":
      case "ground":
        this.#aim = this.#spec.ratedRpm * 0.37;
        return;
      case "run-up":
        this.#aim = runUpRpm + setsOff;
        return;
      case "right":
      case "left":
      case "both":
        this.#aim = undefined;
        controls.ignition = this.#step;
        return;
      case "heat":
        this.#aim = undefined;
        controls.heat = true;
        return;
      case "cold":
        controls.heat = false;
        return;
      case "load":
        controls.load = true;
        return;
      case "clear":
        this.#aim = clearRpm;
        this.#egtPeak = 0;
        return;
      case "lean":
        this.#egtPeak = 0;
        return;
      case "set lean":
        this.#aim = this.#habits.groundLeanRpm;
        return;
      case "peak":
        this.#aim = undefined;
        this.#fastest = 0;
        return;
      case "enrich":
        return;
      case "idle":
        this.#aim = undefined;
        controls.load = false;
        controls.throttle = 0;
        return;
      case "stop":
        controls.mixture = 0;
        return;
      case "propeller":
        this.#aim = undefined;
        return;
    }
  }

  /** Leans past peak rpm until it clearly falls. */
  #leanPast(at: number): void {
    const rpm = this.#engine.meanRpm;
    this.#fastest = Math.max(this.#fastest, rpm);
    if (at - this.#moves > 60 || rpm < this.#fastest * 0.955) return;
    const { controls } = this.#engine;
    controls.mixture = Math.max(0.2, controls.mixture - 0.0022);
  }

  /** Leans until EGT has just passed its peak; slightly richer for best power. */
  #lean(at: number): void {
    const { controls } = this.#engine;
    const seconds = at - this.#moves;
    const hottest = Math.max(...this.#engine.read().egtF);
    this.#egtPeak = Math.max(this.#egtPeak, hottest);
    if (seconds < 2 || seconds > 18) return;
    if (hottest > this.#egtPeak - 4 && this.#engine.mixtureRatio > (this.#step === "clear" ? 1.0 : 1.12))
      controls.mixture = Math.max(0.2, controls.mixture - 0.0045);
  }
}
