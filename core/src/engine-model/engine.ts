import { normalNumbers, seededRandom } from "../units/seeded-random";
import { type EngineSpec, propellerTorque } from "./engine-shape";
import type { Side, SimulatedFault } from "./simulated-fault";

// Cached: this runs about a million times a second.
const { PI, cos, exp, max, min, round, sqrt, tanh } = Math;

/** Cockpit controls. */
export interface Controls {
  /** 0 at the idle stop, 1 fully open. */
  throttle: number;
  /** 1 full rich, 0 cut off. */
  mixture: number;
  ignition: "off" | "right" | "left" | "both";
  /** Carburettor heat or alternate air. */
  heat: boolean;
  /** 1 full fine (or a fixed propeller), 0 fully back. */
  propeller: number;
  alternator: boolean;
  /** A landing light or pitot heat as an electrical load. */
  load: boolean;
}

export const AT_IDLE: Controls = {
  throttle: 0,
  mixture: 1,
  ignition: "both",
  heat: false,
  propeller: 1,
  alternator: true,
  load: false,
};

/** Ambient air. */
export interface Surroundings {
  pressureHpa: number;
  celsius: number;
  /** Relative humidity, 0 to 1. */
  humidity: number;
}

/** Readings of the probes at one time, without instrument noise. Units as on a panel. */
export interface Probes {
  rpm: number;
  mapInHg: number;
  fuelFlowGph: number;
  oilPsi: number;
  oilF: number;
  volts: number;
  amps: number;
  suctionInHg: number;
  egtF: Float64Array;
  chtF: Float64Array;
}

export interface EngineOptions {
  spec: EngineSpec;
  air: Surroundings;
  fault: SimulatedFault;
  /** Severity of the fault, 0 to 1. */
  severity: number;
  seed: number;
  /** Warm from taxiing, or just started. */
  warm?: boolean;
}

const R_AIR = 287.05;
const STEP = 0.02;

/**
 * Mean-value engine model: throttle and manifold as a filling volume, torque from manifold pressure, mixture and the plugs firing
 * in each cylinder, a propeller with torque proportional to speed squared, CHT, EGT and oil as first-order thermal states, a
 * regulated alternator with a battery, a vacuum pump. It models what engines have in common on the ground, not a particular one.
 * `advance` takes any number of seconds and steps 20 ms internally. Sources: Hendricks & Sorenson, SAE 900616 (mean-value engine
 * models); compressible flow through a throat as in any gas-dynamics text; propeller torque by its coefficient. Numbers are
 * invented.
 */
export class Engine {
  readonly controls: Controls = { ...AT_IDLE };
  private readonly spec: EngineSpec;
  private readonly air: Surroundings;
  private readonly fault: SimulatedFault;
  private readonly severity: number;
  private readonly normal: () => number;
  private omega: number;
  private manifoldPa: number;
  private pitch = 0;
  private ice = 0;
  private heated = 0;
  private readonly egt: Float64Array;
  private readonly cht: Float64Array;
  private readonly egtOffset: Float64Array;
  private readonly plugs: { side: Side; cylinder: number; carbon: number }[] = [];
  /** Two magnetos are never exactly alike. */
  private readonly sideLoss: Record<Side, number>;
  private oilC: number;
  private oilPsi = 60;
  private volts: number;
  private batteryAmps = 0;
  private suction = 5;
  private fuelKgS = 0;
  private rough = 0;
  private roughState = 0;
  private phi = 1.2;
  private readonly adiabat: { top: number; density: number };

  constructor({ spec, air, fault, severity, seed, warm = true }: EngineOptions) {
    this.spec = spec;
    this.air = air;
    this.fault = fault;
    this.severity = severity;
    const uniform = seededRandom(seed);
    this.normal = normalNumbers(uniform);
    const kelvin = air.celsius + 273.15;
    this.adiabat = { top: air.pressureHpa * 100, density: (air.pressureHpa * 100) / (R_AIR * kelvin) };
    this.omega = (spec.ratedRpm * 0.37 * PI) / 30;
    this.manifoldPa = this.adiabat.top * 0.4;
    const n = spec.cylinders;
    this.egt = new Float64Array(n).fill(1050);
    this.cht = new Float64Array(n);
    this.egtOffset = new Float64Array(n);
    this.sideLoss = { right: 1 + 0.13 * this.normal(), left: 1 + 0.13 * this.normal() };
    for (let i = 0; i < n; i++) {
      this.egtOffset[i] = this.normal() * 22;
      this.cht[i] = (warm ? 250 : air.celsius * 1.8 + 60) + this.normal() * 8;
    }
    this.oilC = warm ? 68 + uniform() * 8 : air.celsius + 8;
    this.volts = spec.volts;
    if (fault.kind === "fouled plug" || fault.kind === "dead plug")
      this.plugs.push({ side: fault.side, cylinder: fault.cylinder, carbon: 0.7 + 0.3 * severity });
    if (fault.kind === "carburettor ice") this.ice = 0.45 + 0.35 * severity;
  }

  /** Carbon on the worst plug, 0 clean to 1. */
  get carbon(): number {
    return this.plugs[0]?.carbon ?? 0;
  }

  /** Equivalence ratio: 1 is stoichiometric, more is rich. */
  get mixtureRatio(): number {
    return this.phi;
  }

  get stopped(): boolean {
    return this.omega < 1;
  }

  advance(seconds: number): void {
    const steps = max(1, round(seconds / STEP));
    for (let i = 0; i < steps; i++) this.stepOnce(seconds / steps);
  }

  /** Whether this side fires, and its delay in degrees. */
  private spark(side: Side): { fires: boolean; lateDeg: number } {
    const { ignition } = this.controls;
    const fault = this.fault;
    const own = "side" in fault && fault.side === side;
    const grounded = ignition === "off" || (ignition !== "both" && ignition !== side);
    const fires =
      own && fault.kind === "dead magneto" ? false : !grounded || (own && fault.kind === "hot magneto");
    return { fires, lateDeg: own && fault.kind === "timing off" ? 9 + 6 * this.severity : 0 };
  }

  private stepOnce(dt: number): void {
    const spec = this.spec;
    const { throttle, mixture, heat, propeller } = this.controls;
    const { top: ambientPa, density } = this.adiabat;
    const fault = this.fault;
    const n = spec.cylinders;
    const rpm = (this.omega * 30) / PI;
    const turning = this.omega > 1;

    // Intake: filter, heat, ice.
    const heatWorks = heat && fault.kind !== "heat cable off";
    this.heated += ((heatWorks ? 1 : 0) - this.heated) * min(1, dt / 0.35);
    const warmth = spec.fuelSystem === "carburettor" ? 34 : 6;
    const intakeK = this.air.celsius + 273.15 + warmth * this.heated;
    const blocked = fault.kind === "blocked intake" ? 0.1 + 0.05 * this.severity : 0.004;
    // Heat and alternate air bypass the filter, by a longer path.
    const upstreamPa =
      ambientPa *
      (1 - blocked * (1 - this.heated) * min(1, rpm / (0.67 * spec.ratedRpm)) - 0.012 * this.heated);
    this.freeze(dt, throttle, intakeK);
    const open = spec.idleOpening * (fault.kind === "idle low" ? 0.58 - 0.12 * this.severity : 1);
    const angle = open + (1 - open) * (1 - cos((min(1, max(0, throttle)) * PI) / 2));
    const area = spec.throatM2 * angle * (1 - 0.42 * this.ice);
    const inflow = throatFlow(area, upstreamPa, intakeK, this.manifoldPa);
    const leaks = fault.kind === "induction leak" && turning;
    const leak = leaks
      ? throatFlow(
          spec.throatM2 * spec.idleOpening * (0.085 + 0.035 * this.severity),
          ambientPa,
          intakeK,
          this.manifoldPa,
        )
      : 0;
    const chargeK = intakeK + 20;
    const pumped = (spec.breathing * spec.displacementM3 * (rpm / 120) * this.manifoldPa) / (R_AIR * chargeK);
    // Near equal pressures the flow is so steep that an explicit step would oscillate: semi-implicit.
    const fill = (dt * R_AIR * chargeK) / spec.manifoldM3;
    const stiff =
      fill *
      ((pumped + flowSlope(area, upstreamPa, intakeK, this.manifoldPa) * this.manifoldPa) / this.manifoldPa);
    this.manifoldPa += (fill * (inflow + leak - pumped)) / (1 + stiff);
    this.manifoldPa = min(ambientPa * 0.995, max(ambientPa * 0.12, this.manifoldPa));

    // Mixture: a carburettor runs richer in thin or hot air; an intake leak leans its own cylinder.
    const thin = sqrt(1.225 / (upstreamPa / (R_AIR * intakeK)));
    const rich = spec.fuelSystem === "carburettor" ? 1.24 * thin : 1.2 * thin ** 0.8;
    const tooRich = fault.kind === "rich at altitude" ? 1.05 : 1;
    const phi = rich * tooRich * (mixture <= 0.02 ? 0 : 0.5 + 0.5 * mixture);
    this.phi = phi;
    this.fuelKgS = turning ? (inflow * phi) / 14.7 : 0;

    const right = this.spark("right");
    const left = this.spark("left");
    const perCylinder = pumped / n || 1e-9;
    let sum = 0;
    let misfiring = 0;
    for (let i = 0; i < n; i++) {
      const own = leaks && fault.cylinder === i + 1 ? phi * max(0.4, 1 - (leak / perCylinder) * 0.8) : phi;
      const burn = this.burn(i, own, right, left);
      sum += burn.work;
      misfiring += burn.misfire;
      this.heatCylinder(i, dt, own, burn, rpm);
    }
    this.foul(dt, rpm, phi);

    const bar = (this.manifoldPa / 1e5) * (308 / chargeK);
    const runs = rpm > 0.1 * spec.ratedRpm;
    const indicated = runs ? spec.imepBar * bar * (sum / n) : 0;
    const friction =
      spec.frictionBar[0] +
      spec.frictionBar[1] * (rpm / spec.ratedRpm) +
      ((ambientPa - this.manifoldPa) / 1e5) * 0.8;
    const torque = ((indicated - friction) * 1e5 * spec.displacementM3) / (4 * PI);
    this.governor(dt, rpm, propeller);
    // Intermittent misfiring shakes the crankshaft.
    this.rough += (misfiring / n - this.rough) * min(1, dt / 0.3);
    this.roughState += dt * (-this.roughState / 0.25) + sqrt(dt) * this.normal() * this.rough;
    const load = propellerTorque(spec, density, this.omega, this.pitch);
    this.omega = max(0, this.omega + (dt * (torque - load)) / spec.inertia);
    if (!runs && this.omega < 20) this.omega = max(0, this.omega - 12 * dt);
    this.oil(dt, rpm);
    this.electrics(dt, rpm);
    const pump = spec.vacuumPump ? 5.1 * min(1, rpm / (0.5 * spec.ratedRpm)) : 0;
    const drawn = fault.kind === "suction low" ? pump * (0.8 - 0.2 * this.severity) : pump;
    this.suction += (drawn - this.suction) * min(1, dt / 0.8);
  }

  /** Combustion in a cylinder: work as a share of the best, burn delay, and misfire rate. */
  private burn(
    i: number,
    phi: number,
    right: { fires: boolean; lateDeg: number },
    left: { fires: boolean; lateDeg: number },
  ) {
    const lean = phi < 1.12;
    const mix = max(0, 1 - ((phi - 1.12) / (lean ? 0.5 : 0.86)) ** 2);
    let missed = 1;
    let sparks = 0;
    let late = 0;
    for (const [side, spark] of [
      ["right", right],
      ["left", left],
    ] as const) {
      if (!spark.fires) continue;
      const plug = this.plugs.find((p) => p.side === side && p.cylinder === i + 1);
      const miss = min(1, plug?.carbon ?? 0);
      if (miss < 0.98) {
        sparks += 1 - miss;
        late += spark.lateDeg * (1 - miss);
      }
      missed *= miss;
    }
    if (sparks === 0) return { work: 0, late: 0, misfire: 0, fired: 0 };
    const meanLate = late / sparks;
    const alone = max(0, 2 - sparks);
    // A single flame front takes longer, more so in a rich mixture.
    const unlike = right.fires === left.fires ? 1 : this.sideLoss[right.fires ? "right" : "left"];
    const slow = this.spec.onePlugLoss * unlike * min(1, alone) * (1 + 7 * max(0, phi - 1.3));
    const lateLoss = 0.00075 * meanLate * meanLate * (sparks > 1.5 ? 0.4 : 1);
    const fired = 1 - missed;
    const work = mix * max(0, 1 - slow - lateLoss) * fired;
    const stumble = max(0, phi - 1.42) * 0.5 + max(0, 0.68 - phi) * 3;
    return {
      work: work * (1 - min(0.9, stumble)),
      late: min(1, alone) * 10 + meanLate * (sparks > 1.5 ? 0.3 : 1),
      misfire: min(1, missed * 1 + stumble),
      fired: fired * (mix > 0 ? 1 : 0),
    };
  }

  private heatCylinder(
    i: number,
    dt: number,
    phi: number,
    burn: { work: number; late: number; fired: number },
    rpm: number,
  ): void {
    const share = rpm / this.spec.ratedRpm;
    const airF = this.air.celsius * 1.8 + 32;
    const offPeak = phi - 0.97;
    const gas =
      980 +
      460 * min(1, share * 1.05) * (0.55 + 0.45 * (this.manifoldPa / 1e5)) -
      (offPeak > 0 ? 620 : 1300) * offPeak * offPeak -
      120 * max(0, offPeak);
    const exhaust =
      this.omega > 1
        ? airF + (gas + 7.2 * burn.late + (this.egtOffset[i] as number) - airF) * (0.16 + 0.84 * burn.fired)
        : airF + ((this.egt[i] as number) - airF) * 0.9;
    const egt = this.egt[i] as number;
    this.egt[i] = egt + (exhaust - egt) * min(1, dt / (exhaust > egt ? 1.9 : 2.6));
    const cht = this.cht[i] as number;
    const heat = 0.92 * share ** 1.5 * (0.4 + 0.6 * burn.work) * 2.2;
    this.cht[i] = cht + dt * (heat - (cht - airF) * (0.0014 + 0.0036 * share));
  }

  /** Lead and carbon burn off with sustained heat; a broken lead does not heal. */
  private foul(dt: number, rpm: number, phi: number): void {
    if (this.fault.kind !== "fouled plug") return;
    const plug = this.plugs[0];
    if (!plug) return;
    const hot = rpm > 0.62 * this.spec.ratedRpm && phi < 1.13 && phi > 0.8;
    if (hot) plug.carbon = max(0, plug.carbon - (dt / 48) * (1.05 - 0.35 * this.severity));
    else if (phi > 1.2) plug.carbon = min(1, plug.carbon + dt / 2400);
  }

  private freeze(dt: number, throttle: number, intakeK: number): void {
    const venturiC = intakeK - 273.15 - 18 + 6 * throttle;
    if (this.fault.kind !== "carburettor ice") return;
    if (this.heated > 0.4) this.ice = max(0, this.ice - (dt / 3.4) * this.heated);
    else if (venturiC < 2 && this.air.humidity > 0.4) this.ice = min(1, this.ice + dt / 900);
  }

  private governor(dt: number, rpm: number, lever: number): void {
    const { propeller, ratedRpm } = this.spec;
    if (propeller === "fixed") return;
    const wanted = ratedRpm * (0.45 + 0.56 * lever);
    const slow = this.fault.kind === "governor slow" ? 0.14 - 0.06 * this.severity : 1;
    const rate = max(-0.42, min(0.42, ((rpm - wanted) / ratedRpm) * 4)) * slow;
    this.pitch = min(1, max(0, this.pitch + dt * rate));
  }

  private oil(dt: number, rpm: number): void {
    const share = rpm / this.spec.ratedRpm;
    const aim = this.air.celsius + 48 * share + 42;
    this.oilC += ((aim - this.oilC) * dt) / 420;
    const thin = exp(-(this.oilC - 70) / 55);
    const pump = 150 * share * thin;
    const relief = (this.spec.oilPsi ?? 74) + 7 * tanh((thin - 1) * 0.8);
    const weak = this.fault.kind === "oil pressure low" ? 0.5 - 0.1 * this.severity : 1;
    const psi = min(relief, pump) * weak;
    this.oilPsi += (psi - this.oilPsi) * min(1, dt / 0.6);
  }

  private electrics(dt: number, rpm: number): void {
    const half = this.spec.volts / 28;
    const { alternator, load } = this.controls;
    const off = this.fault.kind === "alternator off line" || !alternator;
    const needed = (14 + (load ? 9 : 0)) / half / 1.6;
    const able = off ? 0 : 60 * min(1, max(0, (rpm / this.spec.ratedRpm - 0.22) / 0.25));
    const set = (this.fault.kind === "regulator high" ? 30 + 1.2 * this.severity : 28.25) * half;
    const charge = off ? 0 : 4 / half;
    const carried = able >= needed;
    const aim = carried ? set - 0.012 * needed : (24.9 - 0.035 * (needed - able)) * half;
    this.volts += (aim - this.volts) * min(1, dt / 0.5);
    const amps = carried ? min(able - needed, charge) : able - needed;
    this.batteryAmps += (amps - this.batteryAmps) * min(1, dt / 0.5);
  }

  read(): Probes {
    const shake = this.roughState * 130 * (this.spec.ratedRpm / 2700);
    return {
      rpm: this.stopped ? 0 : max(0, (this.omega * 30) / PI + shake),
      mapInHg: (this.stopped ? this.adiabat.top : this.manifoldPa) / 3386.39,
      fuelFlowGph: (this.fuelKgS * 3600) / 2.72,
      oilPsi: this.stopped ? 0 : this.oilPsi,
      oilF: this.oilC * 1.8 + 32,
      volts: this.volts,
      amps: this.batteryAmps,
      suctionInHg: this.stopped ? 0 : this.suction,
      egtF: this.egt,
      chtF: this.cht,
    };
  }

  /** Mean speed without the shake of a rough engine: the reference for measurements. */
  get meanRpm(): number {
    return (this.omega * 30) / PI;
  }
}

/** Mass flow through a throat, kg/s; linearised near equal pressures for stability. Source: compressible nozzle flow, γ = 1.4. */
function throatFlow(area: number, upPa: number, upK: number, downPa: number): number {
  const ratio = max(0, downPa / upPa);
  const base = (area * upPa) / sqrt(R_AIR * upK);
  if (ratio >= 1) return 0;
  if (ratio <= 0.5283) return base * 0.6847;
  const part = ratio > 0.96 ? 0.96 : ratio;
  const flow = sqrt(7 * (part ** (2 / 1.4) - part ** (2.4 / 1.4)));
  return ratio > 0.96 ? (base * flow * (1 - ratio)) / 0.04 : base * flow;
}

/** Slope of that flow with downstream pressure, kg/s per Pa, as a positive number. */
function flowSlope(area: number, upPa: number, upK: number, downPa: number): number {
  const ratio = downPa / upPa;
  if (ratio <= 0.5283) return 0;
  const base = (area * upPa) / sqrt(R_AIR * upK);
  const at = min(ratio, 0.96);
  const flow = sqrt(7 * (at ** (2 / 1.4) - at ** (2.4 / 1.4)));
  return ratio > 0.96 ? (base * flow) / (0.04 * upPa) : (base * (0.6847 - flow + 0.05)) / ((at - 0.5) * upPa);
}
