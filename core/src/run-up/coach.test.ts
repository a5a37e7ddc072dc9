import { diagnose, observe } from "../diagnosis/index";
import { Monitor } from "../engine-model/index";
import { CASE_ENGINES, runUpCase } from "../testing/run-up-cases";
import { normalNumbers, seededRandom } from "../units/seeded-random";
import {
  type CoachStep,
  clearSequence,
  coachSequence,
  coachView,
  cornerText,
  type Mark,
  readBack,
  readRunUp,
  STICK_CORNERS,
  spokenNumber,
  surfacesFor,
  traceOf,
} from "./index";

/** Runs the coach with the simulated engine: it prompts, the pilot acts, it observes. */
function coached(
  kind: Parameters<typeof runUpCase>[0],
  engineAt: number,
  sequence?: (profile: (typeof CASE_ENGINES)[number]["profile"]) => CoachStep[],
) {
  const engine = CASE_ENGINES[engineAt] as (typeof CASE_ENGINES)[number];
  const { options } = runUpCase(kind, 1, engine);
  const monitor = new Monitor(options);
  const lines = Array.from({ length: 40 }, () => monitor.next());
  const marks: Mark[] = [];
  const ended: [string, string][] = [];
  for (const step of (sequence ?? coachSequence)(engine.profile)) {
    const since = monitor.now;
    marks.push({ step: step.step, t: since });
    monitor.tell(step.step as never);
    for (let i = 0; i < 1500; i++) {
      lines.push(monitor.next());
      if (i % 3) continue;
      const base = readBase(lines, marks);
      const view = coachView(traceOf(lines.slice(-900)), step, since, engine.profile, base);
      if (view.status === "waiting" || view.status === "settling") continue;
      ended.push([step.step, view.status]);
      break;
    }
    if (ended.at(-1)?.[1] === "stopped") break;
  }
  return { ended, reading: readRunUp(traceOf(lines), engine.profile, marks), engine, seconds: monitor.now };
}

function readBase(lines: { t: number; rpm: number }[], marks: Mark[]): number | undefined {
  const first = marks.find(({ step }) => step === "right" || step === "left");
  if (!first) return undefined;
  const before = lines.filter(({ t }) => t > first.t - 3 && t <= first.t).map(({ rpm }) => rpm);
  return before.reduce((a, b) => a + b, 0) / before.length;
}

describe("the coach", () => {
  it.each([
    0, 1, 2, 3,
  ])("takes a healthy engine (%i) through its whole sequence without a hand on the screen", (at) => {
    const { ended, reading, engine, seconds } = coached("none", at);
    expect(ended.map(([, status]) => status)).toEqual(
      ended.map(() =>
        engine.profile.heat === "alternate air" ? expect.stringMatching(/done|no answer/) : "done",
      ),
    );
    expect(ended).toHaveLength(coachSequence(engine.profile).length);
    expect(seconds).toBeLessThan(150);
    expect(reading.right?.drop).toBeGreaterThan(20);
    expect(reading.left?.drop).toBeGreaterThan(20);
    expect(reading.idle?.quit).toBe(false);
    // Steps do not overlap: the propeller has recovered before heat is selected.
    if (engine.profile.propellerCheck)
      expect(reading.propeller?.drop).toBeGreaterThan(engine.profile.propellerCheck.dropRpm);
    expect(reading.heat?.doubt).toBeUndefined();
    expect(Math.abs(reading.heat?.drop ?? 0)).toBeLessThan(0.12 * engine.profile.rpm);
    expect(Math.abs(reading.heat?.gain ?? 0)).toBeLessThan(12 * Math.max(1, engine.profile.rpm / 1800));
    if (engine.profile.heat === "carburettor heat") expect(reading.heat?.seen).toBe(true);
    const limits = {
      maxDropRpm: engine.maxDropRpm,
      maxDifferenceRpm: 50 * Math.max(1, engine.profile.rpm / 1800),
      resolutionRpm: 10,
    };
    const { ranked } = diagnose(observe(reading, engine.profile, limits), {
      cylinders: engine.shape.cylinders,
      fuelSystem: engine.shape.fuelSystem,
      propeller: engine.shape.propeller,
      suction: engine.shape.vacuumPump,
    });
    expect(ranked[0]?.fault).toBeUndefined();
  });

  it("asks when nothing responds, and detects an engine that stops", () => {
    expect(coached("hot magneto", 0).ended).toContainEqual(["right", "no answer"]);
    expect(coached("dead magneto", 0).ended.at(-1)).toEqual(["left", "stopped"]);
  });

  it("does not take a settling throttle for a response: a side without a drop is asked about", () => {
    const engine = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const step = coachSequence(engine.profile).find((one) => one.step === "right") as CoachStep;
    // A late throttle movement as the key was asked for: rising to run-up rpm within two seconds.
    for (const late of [0, 0.5, 1, 1.5, 2])
      for (let seed = 1; seed <= 8; seed++) {
        const noise = normalNumbers(seededRandom(seed));
        const lines = Array.from({ length: 180 }, (_, i) => {
          const t = i / 10;
          const rising = Math.max(0, 1 - Math.max(0, t - late) / 2);
          return { t, rpm: Math.round(1783 - 60 * rising ** 2 + 3.5 * noise()) };
        });
        const seen = new Set<string>();
        for (let n = 50; n <= lines.length; n += 3)
          seen.add(coachView(traceOf(lines.slice(0, n)), step, 4, engine.profile, 1780).status);
        expect([...seen].sort()).toEqual(["no answer", "waiting"]);
      }
  });

  it("does not take drift for a response, and detects the key when it is turned at last", () => {
    const engine = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const monitor = new Monitor(runUpCase("none", 1, engine).options);
    const lines = Array.from({ length: 40 }, () => monitor.next());
    monitor.tell("run-up");
    for (let i = 0; i < 120; i++) lines.push(monitor.next());
    const since = monitor.now;
    const first = lines.slice(-50);
    const step = coachSequence(engine.profile).find((one) => one.step === "right") as CoachStep;
    const seen = new Set<string>();
    const look = (minutes: number, until?: string) => {
      for (let i = 0; i < minutes * 600; i++) {
        // The engine is still warming: rpm changes by more in half a minute than the coach requires of a drop.
        const line = monitor.next();
        lines.push({ ...line, rpm: line.rpm + (line.t - since) / 30 });
        if (i % 3) continue;
        const { status } = coachView(
          traceOf([...first, ...lines.slice(Math.max(160, lines.length - 300))]),
          step,
          since,
          engine.profile,
          1800,
        );
        seen.add(status);
        if (status === until) return status;
      }
      return undefined;
    };
    look(6);
    expect([...seen].sort()).toEqual(["no answer", "waiting"]);
    monitor.tell("right");
    expect(look(0.3, "done")).toBe("done");
  });

  it("holds the lean minute and then tries both sides again", () => {
    const { ended, reading, seconds } = coached("fouled plug", 0, clearSequence);
    expect(ended.map(([step]) => step)).toEqual(["clear", "run-up", "right", "both", "left", "both"]);
    expect(seconds).toBeGreaterThan(60);
    expect(reading.left?.drop).toBeLessThan(125);
  });

  it("stops clearing when the CHT gets too high", () => {
    const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const lines = Array.from({ length: 100 }, (_, i) => ({
      t: i / 10,
      rpm: 2000,
      cht: [380, 455, 390, 385],
    }));
    const [clear] = clearSequence(profile);
    expect(clear && coachView(traceOf(lines), clear, 0, profile)).toMatchObject({
      status: "too hot",
      number: 455,
    });
  });

  it("leans first at high density altitude, and warms up a cold engine", () => {
    const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const steps = coachSequence(profile, { lean: true, warm: false }).map(({ step }) => step);
    expect(steps.slice(0, 4)).toEqual(["warm up", "run-up", "lean", "right"]);
    expect(coachSequence({ ...profile, firstSide: "left" }).map(({ step }) => step)[1]).toBe("left");
  });
});

describe("spoken numbers", () => {
  it.each([
    ["one seven four zero", 1740],
    ["one seven tree zero rpm", 1730],
    ["seventeen forty", 1740],
    ["seventeen forty-five", 1745],
    ["eighteen hundred", 1800],
    ["one thousand seven hundred and forty", 1740],
    ["two niner decimal niner two", 29.92],
    ["28 point 1", 28.1],
    ["1,740", 1740],
    ["four fife", 45],
  ])("%s is %d", (text, value) => {
    expect(spokenNumber(text)).toBe(value);
  });

  it("anything that is not a number is rejected", () => {
    for (const text of ["", "right mag", "stand by", "point", "one decimal"])
      expect(spokenNumber(text)).toBeUndefined();
  });

  it("every rpm value is recognised from its own read-back", () => {
    for (let rpm = 400; rpm < 6000; rpm += 37) expect(spokenNumber(readBack(rpm))).toBe(rpm);
  });
});

describe("the box of four corners", () => {
  it("has the aileron up on the side of the stick, and the elevator up with the stick back (FAA-H-8083-3, from memory)", () => {
    expect(surfacesFor("back left")).toEqual({
      leftAileron: "up",
      rightAileron: "down",
      elevator: "up",
      rudder: "neutral",
    });
    expect(surfacesFor("forward right", "right")).toEqual({
      leftAileron: "down",
      rightAileron: "up",
      elevator: "down",
      rudder: "right",
    });
    for (const corner of STICK_CORNERS) {
      const places = surfacesFor(corner);
      expect(places.leftAileron).not.toBe(places.rightAileron);
      expect(cornerText(corner)).toContain(
        places.leftAileron === "up" ? "Left aileron up" : "Right aileron up",
      );
    }
  });
});
