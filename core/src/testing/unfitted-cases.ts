/**
 * Run-ups from a generator on which nothing was ever fitted or tuned: an engine as a balance of torques, hands that move levers at
 * a finite speed, faults of every severity. It shares no number with the reader, the fault library, the engine model or the other
 * generators; only the limits of the example engines are common. All spreads are own estimates. Keep it that way: use it to report
 * results, never to choose a figure.
 */
import { normalNumbers, seededRandom } from "../units/seeded-random";
import { CASE_ENGINES, type CaseEngine } from "./run-up-cases";
import { type Doing, UNSEEN_CASE_PROBLEMS, type UnseenCase, type UnseenCaseProblem } from "./unseen-cases";

/** Position of all levers; a hand moves them. */
interface Levers {
  throttle: number;
  key: "both" | "first" | "second";
  heat: boolean;
  /** Pitch of the blades, 1 is fine. */
  pitch: number;
}

interface Move extends Partial<Levers> {
  what: Doing;
  seconds: number;
}

/** One engine as it happens to be, with its fault. */
interface Build {
  engine: CaseEngine;
  trouble: UnseenCaseProblem;
  /** Share of the torque left on each side, and by how much its exhaust is hotter, °F. */
  side: Record<"first" | "second", { torque: number; egt: number; cold?: number }>;
  cylinder: number;
  severity: number;
}

const STEP_S = 0.05;
/** Manifold pressure that only turns the engine, inHg, and at run-up rpm. */
const FRICTION = 6;
const RUN_UP = 15;

/** One case of a kind; deterministic per seed. */
export function unfittedCase(trouble: UnseenCaseProblem, seed: number): UnseenCase {
  const random = seededRandom(seed * 13 + UNSEEN_CASE_PROBLEMS.indexOf(trouble) * 70_001 + 5);
  const normal = normalNumbers(random);
  const between = (low: number, high: number) => low + (high - low) * random();
  const carburettor =
    trouble === "carburettor ice" || trouble === "heat cable off" || trouble === "rich at altitude";
  const able = CASE_ENGINES.filter(({ shape }) => !carburettor || shape.fuelSystem === "carburettor");
  const engine = able[Math.floor(random() * able.length)] as CaseEngine;
  const build = buildOf(engine, trouble, { random, normal, between });
  const moves = movesOf(build, { random, normal, between });
  const made = simulated(build, moves, { random, normal, between });
  return {
    trouble,
    engine,
    cylinder: build.cylinder,
    ...made,
    highAndRich: trouble === "rich at altitude",
    celsius: trouble === "carburettor ice" ? between(0, 14) : between(-5, 33),
  };
}

interface Chance {
  random: () => number;
  normal: () => number;
  between: (low: number, high: number) => number;
}

function buildOf(engine: CaseEngine, trouble: UnseenCaseProblem, { random, normal, between }: Chance): Build {
  const severity = random();
  const { cylinders } = engine.shape;
  const common = between(0.875, 0.93);
  const rise = between(40, 80);
  const plain = () => ({ torque: common + 0.008 * normal(), egt: rise + 5 * normal() });
  const side: Build["side"] = { first: plain(), second: plain() };
  const sick = side[random() < 0.5 ? "first" : "second"];
  if (trouble === "plug") {
    sick.torque *= 1 - (0.55 + 0.45 * severity) / cylinders;
    sick.cold = 90 + 150 * severity;
  }
  if (trouble === "timing off") {
    sick.torque *= 0.96 - 0.07 * severity;
    sick.egt += 25 + 60 * severity;
  }
  if (trouble === "rich at altitude")
    for (const one of [side.first, side.second]) {
      one.torque -= 0.08 + 0.1 * severity;
      one.egt *= 0.6;
    }
  const other = sick === side.first ? side.second : side.first;
  if (trouble === "dead magneto") {
    sick.torque = -1;
    other.torque = 1;
    other.egt = 0;
  }
  if (trouble === "hot magneto") {
    sick.torque = 1;
    sick.egt = 0;
  }
  return { engine, trouble, side, cylinder: 1 + Math.floor(random() * cylinders), severity };
}

/** What this pilot does, in order. */
function movesOf({ engine, trouble, side }: Build, { random, normal, between }: Chance): Move[] {
  const { profile, shape } = engine;
  const aim = 1 + 0.012 * normal();
  const low = () => between(0.42, 0.62);
  const idleRange = [profile.idle.min ?? 0, profile.idle.max ?? 0] as const;
  const idle = (idleRange[0] + (idleRange[1] - idleRange[0]) * between(0.2, 0.8)) / profile.rpm;
  const on = (throttle: number): number => throttleFor(throttle);
  const moves: Move[] = [];
  const taxi = () => {
    moves.push({ what: "ground", seconds: between(10, 45), throttle: on(low()) });
    if (random() < 0.5)
      moves.push({ what: "ground", seconds: between(2, 5), throttle: on(between(0.65, 0.78)) });
    moves.push({ what: "ground", seconds: between(5, 20), throttle: on(low()) });
  };
  const both = (least = 3): Move => ({
    what: "both",
    seconds: between(least, least + 9),
    key: "both",
    heat: false,
    pitch: 1,
  });
  const magnetos = () => {
    for (const key of random() < 0.92
      ? (["first", "second"] as const)
      : (["first", "second", "first"] as const)) {
      // Nobody waits for the propeller to stop.
      moves.push({ what: key, seconds: side[key].torque < 0 ? between(0.8, 2.2) : between(3, 10), key });
      moves.push(both());
    }
  };
  const heat = () => {
    if (shape.fuelSystem !== "carburettor" || (!carburettorFault(trouble) && random() < 0.15)) return;
    moves.push({ what: "heat", seconds: between(5, 14), heat: true });
    moves.push(both(4));
  };
  const propeller = () => {
    if (shape.propeller !== "constant speed") return;
    for (let n = Math.floor(between(1, 3.99)); n > 0; n--) {
      moves.push({ what: "propeller", seconds: between(1.2, 3.5), pitch: between(1.6, 2.4) });
      moves.push(both(3));
    }
  };
  taxi();
  moves.push({ ...both(6), throttle: on(aim) });
  const orders = [
    [magnetos, heat, propeller],
    [magnetos, propeller, heat],
    [propeller, magnetos, heat],
    [heat, magnetos, propeller],
  ];
  for (const part of orders[Math.floor(random() * orders.length)] ?? []) part();
  moves.push({
    what: "idle",
    seconds: between(4, 12),
    throttle: on(trouble === "idle low" ? idle * between(0.4, 0.7) : idle),
  });
  if (trouble !== "idle low") taxi();
  return moves;
}

const carburettorFault = (trouble: UnseenCaseProblem) =>
  trouble === "carburettor ice" || trouble === "heat cable off" || trouble === "rich at altitude";

/** Manifold pressure, inHg, at a throttle position and a share of run-up rpm. */
const pressure = (throttle: number, speed: number): number =>
  (29 * throttle) / (throttle + Math.max(0.05, speed));
/** Torque that the propeller takes; 9 at run-up rpm. */
const load = (speed: number, pitch: number): number => (RUN_UP - FRICTION) * pitch * speed * Math.abs(speed);

/** Throttle position that holds a share of run-up rpm on both magnetos. */
function throttleFor(speed: number): number {
  const wanted = FRICTION + load(speed, 1);
  return (wanted * speed) / (29 - wanted);
}

function simulated(
  build: Build,
  moves: readonly Move[],
  chance: Chance,
): Pick<UnseenCase, "lines" | "done" | "drops"> {
  const { engine, trouble, side, severity } = build;
  const { between } = chance;
  const cold = trouble === "carburettor ice" ? 0.72 + 0.12 * (1 - severity) : 1;
  const levers: Levers = { throttle: throttleFor(0.5), key: "both", heat: false, pitch: 1 };
  const goal = { ...levers };
  const monitor = monitorOf(build, chance);
  const inertia = between(0.4, 0.9);
  const done: UnseenCase["done"] = [];
  let ice = cold;
  let speed = 0.5;
  let t = 0;
  let stopped = false;
  let calm = 1;
  for (const { what, seconds, ...set } of moves) {
    Object.assign(goal, set);
    const from = t;
    const was = speed;
    for (let n = Math.round(seconds / STEP_S); n > 0; n--, t += STEP_S) {
      // A hand moves the throttle through its range in two seconds, and the propeller lever in one.
      levers.throttle += clamp(goal.throttle - levers.throttle, 0.5 * STEP_S);
      levers.pitch += clamp(goal.pitch - levers.pitch, 1.5 * STEP_S);
      levers.key = goal.key;
      levers.heat = goal.heat;
      if (levers.heat && trouble !== "heat cable off") ice += (1 - ice) * (STEP_S / 4);
      const warm = levers.heat && trouble !== "heat cable off" ? 0.93 : 1;
      const map = pressure(levers.throttle * ice, speed);
      const share = levers.key === "both" ? 1 : side[levers.key].torque;
      if (speed < 0.16) stopped = true;
      const torque = stopped || share < 0 ? -FRICTION / 2 : (map - FRICTION) * share * warm;
      speed += ((torque - load(speed, levers.pitch)) * STEP_S) / (25 * inertia);
      if (stopped && speed < 0.05) speed = 0;
      monitor.sample(t, { speed, map, stopped: stopped || share < 0, ...levers });
    }
    const isSide = what === "first" || what === "second";
    if (what === "both") calm = speed;
    done.push({
      what: stopped && what === "idle" ? "quit" : what,
      from,
      to: t,
      ...(isSide && side[what].torque > 0 && { drop: (calm - speed) * engine.profile.rpm }),
    });
    if (stopped && was === 0) break;
  }
  const dropOf = (key: "first" | "second") => done.findLast((one) => one.what === key)?.drop;
  const [first, second] = [dropOf("first"), dropOf("second")];
  return {
    lines: monitor.lines,
    done,
    drops: { ...(first !== undefined && { first }), ...(second !== undefined && { second }) },
  };
}

const clamp = (value: number, most: number): number => Math.max(-most, Math.min(most, value));

/** An engine monitor with slow probes, a display step and a rate of its own. */
function monitorOf(
  { engine, trouble, side, cylinder, severity }: Build,
  { random, normal, between }: Chance,
): {
  lines: UnseenCase["lines"];
  sample: (t: number, now: Levers & { speed: number; map: number; stopped: boolean }) => void;
} {
  const { shape, profile } = engine;
  const every = [1, 0.5, 0.2][Math.floor(random() * 3)] as number;
  const grain = [1, 5, 10, 20][Math.floor(random() * 4)] as number;
  const noise = between(1, 6) * (profile.rpm / 1800);
  const rows = Array.from({ length: shape.cylinders }, (_, i) => ({
    power: 22 * normal(),
    low: 26 * normal(),
    lag: between(1.5, 6),
    leak: trouble === "induction leak" && i + 1 === cylinder ? 60 + 150 * severity : 0,
    own: 7 * normal(),
    egt: 1100 + 20 * normal(),
    cht: between(190, 270),
  }));
  const charging = shape.volts === 28 ? between(27.3, 28.7) : between(13.6, 14.4);
  const off = trouble === "alternator off line";
  const volts = off ? charging * between(0.86, 0.92) : charging;
  const amps = off ? -between(6, 30) : between(1, 15);
  const broken = Math.floor(random() * 3);
  const lines: UnseenCase["lines"] = [];
  let next = 0;
  const aimOf = (
    i: number,
    { speed, key, heat, pitch, stopped }: Parameters<ReturnType<typeof monitorOf>["sample"]>[1],
  ) => {
    const row = rows[i] as (typeof rows)[number];
    if (stopped) return 500;
    const part = Math.max(0, Math.min(1, (speed * pitch ** 0.4 - 0.4) / 0.5));
    const on = key === "both" ? undefined : side[key];
    return (
      1120 +
      210 * part +
      part * row.power +
      (1 - part) * (row.low + row.leak) +
      0.12 * row.leak +
      (on ? on.egt + row.own - (on.cold && i + 1 === cylinder ? on.egt + on.cold : 0) : 0) -
      (heat && trouble !== "heat cable off" ? 25 : 0)
    );
  };
  const sample: ReturnType<typeof monitorOf>["sample"] = (t, now) => {
    for (const [i, row] of rows.entries()) {
      row.egt += ((aimOf(i, now) - row.egt) * STEP_S) / row.lag;
      row.cht += ((320 - row.cht) * STEP_S) / 90;
    }
    if (t < next - 1e-9) return;
    next += every;
    const rpm = Math.max(0, now.speed * profile.rpm);
    lines.push({
      t: Number(t.toFixed(2)),
      rpm: rpm === 0 ? 0 : Math.max(0, Math.round((rpm + noise * normal()) / grain) * grain),
      ...(shape.propeller === "constant speed" && { map: Number((now.map + 0.08 * normal()).toFixed(1)) }),
      fuelFlow: Number((1.2 + 6 * now.speed ** 2 + 0.1 * normal()).toFixed(1)),
      oilPressure: Math.max(0, Math.round(now.speed < 0.1 ? 0 : 55 + 18 * Math.min(1, now.speed) + normal())),
      oilTemperature: Math.round(160 + normal()),
      volts: Number((volts + 0.05 * normal()).toFixed(1)),
      amps: Math.round(amps + normal()),
      egt: rows.map(({ egt }, i) => {
        if (trouble !== "sensor fault" || i + 1 !== cylinder) return Math.round(egt + 1.5 * normal());
        return broken === 0
          ? 0
          : broken === 1
            ? 1150
            : Math.round(egt + (random() < 0.35 ? 170 * normal() : 0));
      }),
      cht: rows.map(({ cht }) => Math.round(cht)),
    });
  };
  return { lines, sample };
}
