import fc from "fast-check";
import { LiveTrace, thinMiddle } from "./live-trace";
import { rowsOf, type Trace, type TraceLine, traceOf } from "./trace";

const line = (i: number): TraceLine => ({ t: i / 10, rpm: 1000 + i, egt: [1300 + i, 1310 + i] });
const lines = (count: number, from = 0) => Array.from({ length: count }, (_, i) => line(from + i));
const numbers = (trace: Trace) => ({
  t: [...trace.t],
  ...Object.fromEntries(
    rowsOf(trace.channels)
      .filter(([, row]) => row.some((value) => !Number.isNaN(value)))
      .map(([name, row]) => [name, [...row]]),
  ),
});

describe("the lines of a monitor as they come", () => {
  it("are the same trace as all of them at once, whatever is absent and however they come", () => {
    const some = fc.record(
      {
        rpm: fc.integer({ min: 0, max: 3000 }),
        volts: fc.double({ min: 0, max: 30, noNaN: true }),
        egt: fc.array(fc.integer({ min: 60, max: 1700 }), { maxLength: 6 }),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(fc.array(fc.array(some, { maxLength: 4 }), { minLength: 1 }), (bundles) => {
        let t = 0;
        const timed = bundles.map((bundle) => bundle.map((one) => ({ ...one, t: t++ / 10 })));
        const all = timed.flat();
        fc.pre(all.length > 0);
        const log = new LiveTrace(1000);
        for (const bundle of timed) log.add(bundle);
        expect(numbers(log.copy())).toEqual(numbers(traceOf(all)));
        expect(log.now).toBe(all.at(-1)?.t);
        expect(log.last("rpm")).toBe(all.at(-1)?.rpm);
      }),
    );
  });

  it("go on for ever in the room that was taken once: the oldest go", () => {
    const log = new LiveTrace(90);
    log.add(lines(90));
    const rooms = new Set(rowsOf(log.since(0).channels).map(([, row]) => row.buffer));
    for (let i = 90; i < 1000; i++) log.add([line(i)]);
    expect(log.length).toBeGreaterThanOrEqual(80);
    expect(log.length).toBeLessThanOrEqual(90);
    const kept = log.copy();
    expect(numbers(kept)).toEqual(numbers(traceOf(lines(log.length, 1000 - log.length))));
    const after = rowsOf(log.since(0).channels).map(([, row]) => row.buffer);
    expect(after.every((buffer) => rooms.has(buffer))).toBe(true);
    expect(after.every(({ byteLength }) => byteLength === 90 * 8)).toBe(true);
  });

  it("show a channel that falls silent as silent, also where an old line stood in its place", () => {
    const log = new LiveTrace(18);
    log.add(lines(18));
    log.add([{ t: 1.8, rpm: 2000 }]);
    expect(log.last("egt1")).toBeUndefined();
    expect(log.last("rpm")).toBe(2000);
    expect(log.last("suction")).toBeUndefined();
  });

  it("take a probe that did not answer for silence, not for nought", () => {
    const wire = JSON.parse('{"t":0,"rpm":1000,"map":null,"egt":[1300,null,1310]}') as TraceLine;
    const { channels } = traceOf([wire]);
    expect(channels.map).toBeUndefined();
    expect(channels.egt2).toBeUndefined();
    expect(channels.egt3?.[0]).toBe(1310);
  });

  it("are looked at from a moment on, at least the last one", () => {
    const log = new LiveTrace(500);
    expect(log.now).toBe(0);
    expect(log.since(0).t).toHaveLength(0);
    log.add(lines(100));
    expect([...log.since(9.75).t]).toEqual([9.8, 9.9]);
    expect([...log.since(60).t]).toEqual([9.9]);
    // After a clock that jumps back, earlier samples are not used.
    log.add(lines(3, 20));
    expect([...log.since(9.75).t]).toEqual([2.2]);
  });
});

describe("a long trace is thinned in its middle", () => {
  const thinning = { first: 10, between: 20, last: 30 };

  it("and is left as it is where it is short", () => {
    const trace = traceOf(lines(60));
    expect(thinMiddle(trace, thinning)).toBe(trace);
  });

  it("to a bounded length, with its beginning and its end whole", () => {
    fc.assert(
      fc.property(fc.integer({ min: 61, max: 5000 }), (count) => {
        const { t, channels } = thinMiddle(traceOf(lines(count)), thinning);
        expect(t.length).toBeLessThanOrEqual(60);
        expect([...t.slice(0, 10)]).toEqual(lines(10).map((one) => one.t));
        expect([...t.slice(-30)]).toEqual(lines(30, count - 30).map((one) => one.t));
        expect(t.every((at, i) => i === 0 || at > (t[i - 1] as number))).toBe(true);
        expect(channels.rpm?.every((rpm, i) => rpm === 1000 + Math.round(10 * (t[i] as number)))).toBe(true);
      }),
    );
  });
});
