/**
 * Run-ups from an independent generator: pilots with different habits, cylinders that differ, slow probes, coarse and faulty
 * monitors. Written from the look of real traces, without any number of the engine model or the fault library. Tuning to these
 * cases would be overfitting, so half of the seeds are reserved for reporting. All spreads are own estimates.
 */
import { normalNumbers, seededRandom } from "../units/seeded-random";
import { CASE_ENGINES, type CaseEngine } from "./run-up-cases";

export const UNSEEN_CASE_PROBLEMS = [
  "none",
  "plug",
  "dead magneto",
  "hot magneto",
  "timing off",
  "rich at altitude",
  "carburettor ice",
  "heat cable off",
  "alternator off line",
  "idle low",
  "induction leak",
  "sensor fault",
] as const;
export type UnseenCaseProblem = (typeof UNSEEN_CASE_PROBLEMS)[number];

interface Line {
  t: number;
  rpm: number;
  map?: number;
  fuelFlow: number;
  oilPressure: number;
  oilTemperature: number;
  volts: number;
  amps: number;
  egt: number[];
  cht: number[];
}

export interface UnseenCase {
  trouble: UnseenCaseProblem;
  engine: CaseEngine;
  cylinder: number;
  lines: Line[];
  /** True actions with times in seconds from the first sample. */
  done: { what: Doing; from: number; to: number; drop?: number }[];
  /** True drops of the side checked first and the other, rpm; absent if it stopped. */
  drops: { first?: number; second?: number };
  highAndRich: boolean;
  celsius: number;
}

/** Action of the hand. */
export type Doing = "ground" | "past" | "both" | "first" | "second" | "heat" | "propeller" | "idle" | "quit";

/** Engine state during a stretch. */
interface Stretch {
  what: Doing;
  seconds: number;
  rpm: number;
  /** Time constant, s. */
  lag: number;
  /** EGT relative to run-up on both, °F, for all cylinders and each. */
  egt: number;
  own?: readonly number[];
  map?: number;
  shake?: number;
  low?: boolean;
  /** Drop on one side, rpm. */
  fell?: number;
}

const ENGINES = CASE_ENGINES.slice(0, 2);

/** One case of a kind; deterministic per seed. */
export function unseenCase(trouble: UnseenCaseProblem, seed: number): UnseenCase {
  const random = seededRandom(seed * 7 + UNSEEN_CASE_PROBLEMS.indexOf(trouble) * 100_003 + 11);
  const normal = normalNumbers(random);
  const between = (low: number, high: number) => low + (high - low) * random();
  const may = (part: number) => random() < part;
  const carburettor =
    trouble === "carburettor ice" || trouble === "heat cable off" || trouble === "rich at altitude";
  const engine = (carburettor ? ENGINES[0] : ENGINES[Math.floor(random() * 2)]) as CaseEngine;
  const { cylinders, propeller, fuelSystem, volts: bus } = engine.shape;
  const cylinder = 1 + Math.floor(random() * cylinders);
  const row = (make: (i: number) => number) => Array.from({ length: cylinders }, (_, i) => make(i));
  const atPower = row(() => normal() * 30);
  const atIdle = row(() => normal() * 30);
  const gains = row(() => normal() * 9);
  let base = engine.profile.rpm + normal() * 18;
  const common = Math.max(35, 72 + normal() * 14);
  const usual = () => Math.min(112, Math.max(28, common + normal() * 9));
  const rise = Math.max(25, 55 + normal() * 12);

  const side = (what: Doing, sick: boolean): Stretch & { drop?: number } => {
    const seconds = between(3, 15);
    const lag = between(0.4, 1.1);
    if (trouble === "dead magneto" && sick) {
      const cut = between(0.7, 2.5);
      return { what, seconds: cut, rpm: base - between(800, 1300), lag: between(0.5, 0.9), egt: -120 };
    }
    if (trouble === "dead magneto" || (trouble === "hot magneto" && sick))
      return { what, seconds, rpm: base + normal() * 3, lag, egt: normal() * 4, drop: 0 };
    if (trouble === "rich at altitude") {
      const drop = between(190, 300);
      return { what, seconds, rpm: base - drop, lag, egt: rise * 0.5, own: gains, shake: 9, drop };
    }
    if (trouble === "timing off" && sick) {
      const drop = between(135, 220);
      return { what, seconds, rpm: base - drop, lag, egt: rise + between(40, 75), own: gains, drop };
    }
    const drop = usual() + (trouble === "plug" && sick ? between(40, 110) : 0);
    const own = gains.map((gain, i) =>
      trouble === "plug" && sick && i + 1 === cylinder ? -rise - between(110, 230) : gain,
    );
    return {
      what,
      seconds,
      rpm: base - drop,
      lag,
      egt: rise,
      own,
      shake: trouble === "plug" && sick && may(0.6) ? between(8, 22) : 0,
      drop,
    };
  };
  const both = (off = 0): Stretch => ({
    what: "both",
    seconds: between(3, 15),
    rpm: base + off + normal() * 5,
    lag: between(0.5, 1.3),
    egt: 0,
  });

  const plan: Stretch[] = [];
  const ground = (): Stretch => ({
    what: "ground",
    seconds: between(8, 40),
    rpm: between(850, 1200),
    lag: 1.2,
    egt: -170,
    low: true,
  });
  const taxi = () => {
    plan.push(ground());
    for (let n = Math.floor(random() * 3); n > 0; n--) {
      plan.push({
        what: "ground",
        seconds: between(2, 4),
        rpm: between(1250, 1500),
        lag: 1,
        egt: -120,
        low: true,
      });
      plan.push(ground());
    }
  };
  taxi();
  if (may(0.6))
    plan.push({ what: "past", seconds: between(2, 3), rpm: base + between(25, 50), lag: 0.9, egt: 6 });
  plan.push({ ...both(), seconds: between(6, 20) });
  const heat = () => {
    if (
      fuelSystem !== "carburettor" ||
      (trouble !== "carburettor ice" && trouble !== "heat cable off" && may(0.2))
    )
      return;
    const drop = trouble === "heat cable off" ? 0 : Math.max(25, 70 + normal() * 18);
    const egt = trouble === "heat cable off" ? 0 : -between(12, 40);
    if (trouble === "carburettor ice") {
      const gain = between(50, 90);
      plan.push({ what: "heat", seconds: between(2, 4), rpm: base - drop, lag: 0.8, egt });
      plan.push({ what: "heat", seconds: between(6, 14), rpm: base - drop + gain, lag: 3, egt });
      // The ice is gone for the rest of the run-up.
      base += gain;
      plan.push({ what: "both", seconds: between(6, 14), rpm: base, lag: 0.8, egt: 5 });
      return;
    }
    plan.push({ what: "heat", seconds: between(4, 12), rpm: base - drop, lag: 0.8, egt });
    plan.push(both());
  };
  const early = may(0.2);
  if (early) heat();
  const sickFirst = may(0.5);
  const one = side("first", sickFirst);
  const two = side("second", !sickFirst);
  const tries: (Stretch & { drop?: number })[] = may(0.1)
    ? [one, two, { ...two, seconds: between(3, 10) }]
    : [one, two];
  const straight = may(0.15) && trouble !== "dead magneto";
  let calm = plan.at(-1)?.rpm ?? base;
  tries.forEach((tried, i) => {
    // The drop is relative to the last level on both.
    plan.push(tried.drop === undefined ? tried : { ...tried, fell: calm - tried.rpm });
    if (!(straight && i === 0)) {
      const back = both(normal() * 7);
      calm = back.rpm;
      plan.push(back);
    }
  });
  if (!early) heat();
  if (propeller === "constant speed")
    for (let n = 1 + Math.floor(random() * 3); n > 0; n--) {
      plan.push({
        what: "propeller",
        seconds: between(1, 2.2),
        rpm: base - between(320, 450),
        lag: 0.7,
        egt: 8,
        map: 2,
      });
      plan.push({ what: "both", seconds: between(3, 6), rpm: base, lag: 0.9, egt: 0 });
    }
  const idleMid = ((engine.profile.idle.min ?? 550) + (engine.profile.idle.max ?? 800)) / 2;
  if (trouble === "idle low") {
    plan.push({ what: "idle", seconds: between(1, 2), rpm: 400, lag: 1.1, egt: -300, low: true });
    plan.push({ what: "quit", seconds: between(4, 8), rpm: 0, lag: 0.5, egt: -500, low: true });
  } else {
    plan.push({
      what: "idle",
      seconds: between(3, 8),
      rpm: idleMid + normal() * 30,
      lag: 1.1,
      egt: -300,
      low: true,
      shake: may(0.3) ? 15 : 0,
    });
    taxi();
  }

  const done: UnseenCase["done"] = [];
  return {
    trouble,
    engine,
    cylinder,
    lines: lines(plan),
    done,
    drops: {
      ...(one.drop !== undefined && { first: one.drop }),
      ...(two.drop !== undefined && { second: two.drop }),
    },
    highAndRich: trouble === "rich at altitude",
    celsius: trouble === "carburettor ice" ? between(2, 12) : between(5, 28),
  };

  function lines(stretches: readonly Stretch[]): Line[] {
    const hz = [1, 2, 4][Math.floor(random() * 3)] as number;
    const step = [1, 1, 10, 25][Math.floor(random() * 4)] as number;
    const noise = between(2, 7);
    const probeLag = row(() => between(2, 5));
    const leak = trouble === "induction leak" ? between(140, 230) : 0;
    const made: Line[] = [];
    const egt = row((i) => 1150 + (atIdle[i] as number));
    const cht = row(() => between(210, 260));
    const chtAim = row(() => between(290, 350));
    const chtLag = between(60, 120);
    const charging = bus === 28 ? between(27.4, 28.6) : between(13.7, 14.4);
    const volts =
      trouble === "alternator off line"
        ? charging - (bus === 28 ? between(2.8, 3.6) : between(1.4, 1.8))
        : charging;
    const amps = trouble === "alternator off line" ? -between(8, 25) : between(2, 12);
    const probe = Math.floor(random() * 3);
    const dt = 1 / hz;
    let rpm = stretches[0]?.rpm ?? 1000;
    let t = 0;
    let hole = 0;
    for (const stretch of stretches) {
      const from = t;
      for (let n = Math.max(1, Math.round(stretch.seconds * hz)); n > 0; n--) {
        t += dt;
        rpm += (stretch.rpm - rpm) * (1 - Math.exp(-dt / stretch.lag));
        const cold = -45 * Math.exp(-t / 40);
        for (let i = 0; i < cylinders; i++) {
          const place = stretch.low
            ? (atIdle[i] as number) + (leak > 0 && i + 1 === cylinder ? leak : 0)
            : (atPower[i] as number);
          const aim = 1320 + place + stretch.egt + (stretch.own?.[i] ?? 0) + cold;
          egt[i] =
            (egt[i] as number) + (aim - (egt[i] as number)) * (1 - Math.exp(-dt / (probeLag[i] as number)));
          cht[i] =
            (cht[i] as number) + ((chtAim[i] as number) - (cht[i] as number)) * (1 - Math.exp(-dt / chtLag));
        }
        if (hole > 0) {
          hole--;
          continue;
        }
        if (may(0.004)) hole = 1 + Math.floor(random() * 2 * hz);
        const seen = Math.max(0, rpm + normal() * (noise + (stretch.shake ?? 0)));
        const line: Line = {
          t: Number(t.toFixed(2)),
          rpm: stretch.rpm === 0 && rpm < 60 ? 0 : Math.round(seen / step) * step,
          ...(propeller === "constant speed" && {
            map: Number((15 + (stretch.low ? -4 : 0) + (stretch.map ?? 0) + normal() * 0.1).toFixed(1)),
          }),
          fuelFlow: Number((Math.max(0.5, (rpm / 1800) * 5) + normal() * 0.1).toFixed(1)),
          // The oil pump stops with the engine.
          oilPressure: Math.max(0, Math.round((stretch.low ? 58 : 70) * Math.min(1, rpm / 500) + normal())),
          oilTemperature: Math.round(between(165, 168)),
          volts: Number((volts + normal() * 0.06).toFixed(1)),
          amps: Math.round(amps + normal()),
          egt: egt.map((value, i) => {
            if (trouble === "sensor fault" && i + 1 === cylinder)
              return probe === 0
                ? 0
                : probe === 1
                  ? 1204
                  : Math.round(value + (may(0.25) ? normal() * 160 : 0));
            return Math.round(value + normal() * 2);
          }),
          cht: cht.map((value) => Math.round(value + normal())),
        };
        made.push(line);
        // A duplicate sample.
        if (may(0.003)) made.push({ ...line });
      }
      done.push({
        what: stretch.what,
        from,
        to: t,
        ...(stretch.fell !== undefined && { drop: stretch.fell }),
      });
    }
    return made;
  }
}
