import { Monitor } from "@cravix/core/engine-model";
import { coachSequence, type Mark, readRunUp, type Trace, type TraceLine } from "@cravix/core/run-up";
import { CASE_ENGINES, runUpCase } from "@cravix/core/testing/run-up-cases";
import { act, renderHook } from "@testing-library/react-native";
import { type CoachEnd, useCoach } from "./use-coach";

type Kind = Parameters<typeof runUpCase>[0];

/** The coach with the simulated engine, in simulated time. */
function coached(kind: Kind) {
  const engine = CASE_ENGINES[0] as (typeof CASE_ENGINES)[number];
  const { options } = runUpCase(kind, 1, engine);
  const monitor = new Monitor(options);
  const said: string[] = [];
  const ends: { how: CoachEnd; trace: Trace | undefined; marks: Mark[]; side: string | undefined }[] = [];
  let send: (lines: TraceLine[]) => void = () => undefined;
  let problem: (words: string) => void = () => undefined;
  let closed = 0;
  const { result, unmount } = renderHook(() =>
    useCoach({
      sequence: (warm) => coachSequence(engine.profile, { warm }),
      profile: engine.profile,
      listen: ({ onLines, onTrouble }) => {
        send = onLines;
        problem = onTrouble;
        return {
          tell: (step) => {
            said.push(step);
            monitor.tell(step);
          },
          close: () => {
            closed++;
          },
        };
      },
      onEnd: (how, trace, marks, side) => ends.push({ how, trace, marks, side }),
    }),
  );
  const runs = (until: () => boolean, most = 6000) => {
    for (let i = 0; i < most && !until() && ends.length === 0; i++)
      act(() => send([monitor.next(), monitor.next()]));
  };
  return {
    engine,
    result,
    unmount,
    said,
    ends,
    runs,
    closed: () => closed,
    problem: (w: string) => act(() => problem(w)),
  };
}

test("goes through a healthy engine's run-up by itself, and hands over what it heard with its marks", () => {
  const { runs, ends, said, engine, closed } = coached("none");
  runs(() => false);
  expect(ends).toHaveLength(1);
  expect(ends[0]).toMatchObject({ how: "done" });
  expect(said.indexOf("right")).toBeGreaterThan(said.indexOf("run-up"));
  expect(closed()).toBeGreaterThan(0);
  const { trace, marks } = ends[0] as { trace: Trace; marks: Mark[] };
  const reading = readRunUp(trace, engine.profile, marks);
  expect(reading.right?.seen && reading.left?.seen).toBe(true);
});

test("asks where nothing dropped, and only a hand goes on: sure ends it, again turns the key once more", () => {
  const first = coached("hot magneto");
  first.runs(() => first.result.current.coaching.asks !== undefined);
  const side = first.result.current.coaching.asks;
  expect(side).toMatch(/right|left/);
  first.runs(() => false, 40);
  expect(first.ends).toEqual([]);
  act(() => first.result.current.again());
  expect(first.said.filter((step) => step === side)).toHaveLength(2);
  first.runs(() => first.result.current.coaching.asks !== undefined);
  act(() => first.result.current.sure());
  expect(first.ends).toEqual([expect.objectContaining({ how: "no drop", side })]);
});

test("an engine that stops on one side ends it at once, with the side", () => {
  // With a dead left magneto it runs on the right alone from the start: nothing drops there, and it quits on the left.
  const { runs, ends, result } = coached("dead magneto");
  runs(() => result.current.coaching.asks === "right");
  act(() => result.current.skip());
  expect(result.current.coaching.asks).toBeUndefined();
  runs(() => false);
  expect(ends).toEqual([expect.objectContaining({ how: "stopped", side: "left" })]);
});

test("a step can be left out, the rest kept, and a monitor that falls silent is reported", () => {
  const { result, runs, ends, problem, said, unmount, closed } = coached("none");
  runs(() => result.current.coaching.step?.step === "right");
  const steps = said.length;
  act(() => result.current.skip());
  expect(said).toHaveLength(steps + 1);
  problem("It fell silent.");
  expect(result.current.coaching.problem).toBe("It fell silent.");
  act(() => result.current.finish());
  expect(ends).toEqual([expect.objectContaining({ how: "lost" })]);
  expect(ends[0]?.trace?.t.length).toBeGreaterThan(20);
  unmount();
  expect(closed()).toBeGreaterThan(1);
});
