import { Monitor, type MonitorOptions } from "../engine-model/index";
import { CASE_ENGINES, runUpCase } from "../testing/run-up-cases";
import {
  cleanTrace,
  coachView,
  hasProcedure,
  judgeGroundLeaning,
  judgeIdleHold,
  judgeWarmUp,
  type Mark,
  type Procedure,
  procedureSequence,
  readGroundLeaning,
  readRunUp,
  type TraceLine,
  traceOf,
} from "./index";

/** Runs a procedure with the coach and the simulated engine. `deaf`: steps the pilot does not do. */
function coached(
  procedure: Procedure,
  engineAt: number,
  change: Partial<MonitorOptions> = {},
  deaf: readonly string[] = [],
) {
  const engine = CASE_ENGINES[engineAt] as (typeof CASE_ENGINES)[number];
  const { profile } = engine;
  const monitor = new Monitor({
    ...runUpCase("none", 3, engine).options,
    groundLeanRpm: profile.groundLean.rpm,
    ...change,
  });
  const lines: TraceLine[] = Array.from({ length: 40 }, () => monitor.next());
  const marks: Mark[] = [];
  const ended: string[] = [];
  for (const step of procedureSequence(procedure, profile)) {
    const since = monitor.now;
    marks.push({ step: step.step, t: since });
    if (!deaf.includes(step.step)) monitor.tell(step.step as never);
    for (let i = 0; i < 9000; i++) {
      lines.push(monitor.next());
      if (i % 3) continue;
      const view = coachView(traceOf(lines.slice(-900)), step, since, profile);
      if (view.status === "waiting" || view.status === "settling") continue;
      ended.push(view.status);
      break;
    }
  }
  return { trace: traceOf(lines), lines, marks, ended, profile, seconds: monitor.now };
}

const leaned = (run: ReturnType<typeof coached>) =>
  judgeGroundLeaning(readGroundLeaning(cleanTrace(run.trace).trace, run.marks), run.profile);

describe("leaning for the ground", () => {
  it.each([0, 1, 3])("goes past the fastest and back, and is judged so (engine %i)", (at) => {
    const run = coached("ground lean", at);
    expect(run.ended).toEqual(["done", "done", "done"]);
    const judged = leaned(run);
    expect(judged.grade).toBe("within limits");
    expect(judged.sentence).toMatch(
      /Maximum [\d,]+ rpm, leaned past it to [\d,]+, enriched to [\d,]+\. EGT \d+ °F below/,
    );
  });

  it("detects a mixture that was not moved, and one left beyond the peak", () => {
    const untouched = coached("ground lean", 0, {}, ["peak", "enrich"]);
    expect(untouched.ended[1]).toBe("no answer");
    expect(leaned(untouched)).toMatchObject({
      grade: "watch",
      sentence: expect.stringContaining("as rich as before"),
    });
    const left = coached("ground lean", 0, {}, ["enrich"]);
    expect(leaned(left)).toMatchObject({
      grade: "watch",
      sentence: expect.stringContaining("too lean"),
    });
  });

  // Common practice: peak EGT is leaner than peak rpm; enriching by three turns ends on the rich side of it.
  it("ends on the rich side of peak EGT", () => {
    const run = coached("ground lean", 1);
    const reading = readGroundLeaning(run.trace, run.marks);
    expect(reading?.egtPeak).toBeGreaterThan(reading?.egtEnd ?? Number.NaN);
    expect(reading?.end).toBeGreaterThan(reading?.past ?? Number.NaN);
  });

  it("is not offered without a mixture control, and not assessed without a trace", () => {
    const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    expect(hasProcedure("ground lean", { ...profile, groundLean: { rpm: 2500, turnsIn: 0 } })).toBe(false);
    expect(hasProcedure("ground lean", profile)).toBe(true);
    expect(judgeGroundLeaning(undefined, profile).grade).toBe("unjudged");
    expect(readGroundLeaning(traceOf([{ t: 0, rpm: 1200 }]), [{ step: "peak", t: 0 }])).toBeUndefined();
  });
});

describe("warming up", () => {
  it("waits for the green arc, estimates the time, and is assessed by the gauge", () => {
    const engine = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const air = { pressureHpa: 1013, celsius: 0, humidity: 0.6 };
    const run = coached("warm up", 0, { warm: false, air });
    expect(run.ended).toEqual(["done"]);
    expect(run.seconds).toBeGreaterThan(60);
    const early = run.lines.filter(({ t }) => t < 40);
    const view = coachView(traceOf(early), { step: "warm up", say: "", watch: "" }, 0, engine.profile);
    const said = Number(/about (\d+) minutes/.exec(view.words ?? "")?.[1] ?? 1);
    const really = (run.seconds - 40) / 60;
    expect(view.status).toBe("waiting");
    expect(said).toBeGreaterThan(really * 0.6);
    expect(said).toBeLessThan(really + 1.5);
    const oil = run.lines.at(-1)?.oilTemperature;
    expect(judgeWarmUp(oil, run.seconds / 60, engine.profile)).toMatchObject({ grade: "within limits" });
  });

  it("reports what is below the arc, above it, and not visible", () => {
    const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    expect(judgeWarmUp(60, 3, profile)).toMatchObject({
      grade: "ask",
      sentence: "60 °F after 3 min: 15 °F below the green arc.",
    });
    expect(judgeWarmUp(250, 20, profile).grade).toBe("stop");
    // The margin is to the nearer end of the arc of 75 to 245.
    expect(judgeWarmUp(78, 3, profile).margin).toEqual({ value: 3, unit: "°F" });
    expect(judgeWarmUp(240, 30, profile).margin).toEqual({ value: 5, unit: "°F" });
    expect(judgeWarmUp(undefined, 3, profile).grade).toBe("unjudged");
    expect(judgeWarmUp(75, 0.2, profile).sentence).toBe("75 °F: in the green arc, ready for the run-up.");
  });
});

describe("the idle check", () => {
  it("is within limits on a healthy engine, and low on one with a low stop", () => {
    const healthy = coached("idle", 0);
    expect(healthy.ended).toEqual(["done", "done", "done"]);
    const read = (run: typeof healthy) => readRunUp(run.trace, run.profile, run.marks).idle;
    expect(judgeIdleHold(read(healthy), healthy.profile)).toMatchObject({ grade: "within limits" });
    const low = coached("idle", 0, { fault: { kind: "idle low" }, severity: 0.7 });
    expect(["ask", "stop"]).toContain(judgeIdleHold(read(low), low.profile).grade);
  });

  it("is not assessed if ended too soon, or if the engine quit", () => {
    const { profile } = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
    const idle = { from: 0, to: 2, floor: 640, floorSigma: 2, held: 2, quit: false };
    expect(judgeIdleHold(idle, profile)).toMatchObject({
      grade: "note",
      sentence: "640 rpm, but held for only 2 s.",
    });
    expect(judgeIdleHold({ ...idle, quit: true, floor: 0 }, profile).grade).toBe("stop");
    expect(judgeIdleHold({ ...idle, held: 5, floor: 900 }, profile)).toMatchObject({
      grade: "ask",
      sentence: "900 rpm, held 5 s: above its range.",
    });
    // Its range here is 550 to 800.
    expect(judgeIdleHold({ ...idle, held: 5, floor: 695 }, profile).margin).toEqual({
      value: 105,
      unit: "rpm",
    });
    expect(judgeIdleHold({ ...idle, held: 5, floor: 560 }, profile).margin).toEqual({
      value: 10,
      unit: "rpm",
    });
    expect(judgeIdleHold(undefined, profile).grade).toBe("unjudged");
  });
});
