import {
  type CoachStep,
  type CoachView,
  coachView,
  type Mark,
  type RunUpProfile,
  type TraceLine,
  traceOf,
} from "@cravix/core/run-up";
import { useCallback, useEffect, useRef, useState } from "react";
import type { EngineMonitor } from "../../device/engine-monitor";
import { speak, stopSpeaking } from "../../device/speech";

/** Lines that are kept: a quarter of an hour at ten a second; older ones go. */
const MOST_LINES = 9000;
/** How often the coach looks, seconds of the trace. */
const LOOKS_EVERY_S = 0.3;

export type CoachEnd = "done" | "stopped" | "no drop" | "lost";

export interface Coaching {
  /** Absent before the first line. */
  step?: CoachStep;
  at: number;
  of: number;
  view: CoachView;
  /** Nothing changed on a side: whether the key is really there is asked. */
  asks?: "right" | "left";
  trouble?: string;
  /** When it last looked, seconds of the trace: what is drawn goes with it. */
  now: number;
}

interface CoachOptions {
  sequence: (oilIsWarm: boolean) => CoachStep[];
  profile: RunUpProfile;
  listen: (on: {
    onLines: (lines: TraceLine[]) => void;
    onTrouble: (words: string) => void;
  }) => EngineMonitor;
  onEnd: (end: CoachEnd, lines: TraceLine[], marks: Mark[], asked?: "right" | "left") => void;
}

/**
 * Listens to a monitor and goes through a sequence: says a step, tells the stand-in's pilot, watches the trace, and goes on by itself when the step is
 * done. A hand is needed only where nothing changed although it should have.
 */
export function useCoach({ sequence, profile, listen, onEnd }: CoachOptions) {
  const lines = useRef<TraceLine[]>([]);
  const marks = useRef<Mark[]>([]);
  const monitor = useRef<EngineMonitor | null>(null);
  const steps = useRef<CoachStep[]>([]);
  const at = useRef(-1);
  const base = useRef<number | undefined>(undefined);
  const looked = useRef(Number.NEGATIVE_INFINITY);
  const over = useRef(false);
  const asking = useRef<"right" | "left" | undefined>(undefined);
  const [coaching, setCoaching] = useState<Coaching>({
    at: 0,
    of: 0,
    view: { status: "waiting", progress: 0 },
    now: 0,
  });
  const drawn = useRef(0);
  const watchers = useRef(new Set<() => void>());
  const latest = useRef({ sequence, profile, listen, onEnd });
  latest.current = { sequence, profile, listen, onEnd };

  const begin = useCallback((index: number) => {
    at.current = index;
    const step = steps.current[index];
    const now = lines.current.at(-1)?.t ?? 0;
    if (!step) return;
    if ((step.step === "right" || step.step === "left") && base.current === undefined)
      base.current = meanRpm(lines.current, now - 2.5);
    marks.current.push({ step: step.step, t: now });
    monitor.current?.tell(step.step as never);
    speak(step.say);
  }, []);

  const end = useCallback((how: CoachEnd, asked?: "right" | "left") => {
    if (over.current) return;
    over.current = true;
    monitor.current?.close();
    latest.current.onEnd(how, lines.current, marks.current, asked);
  }, []);

  const look = useCallback(() => {
    const now = lines.current.at(-1)?.t ?? 0;
    if (over.current || now - looked.current < LOOKS_EVERY_S) return;
    looked.current = now;
    if (at.current < 0) {
      if (lines.current.length < 15) return;
      const oil = lines.current.at(-1)?.oilTemperature;
      const { min = 75, unit } = latest.current.profile.oilTemperature;
      const least = unit === "°C" ? min * 1.8 + 32 : min;
      steps.current = latest.current.sequence(oil === undefined || oil >= least);
      begin(0);
    }
    const step = steps.current[at.current];
    if (!step) return;
    const since = marks.current.at(-1)?.t ?? 0;
    const trace = traceOf(linesFrom(lines.current, since - 5));
    const view = coachView(trace, step, since, latest.current.profile, base.current);
    const side = step.step === "right" || step.step === "left" ? step.step : undefined;
    if (view.status === "stopped" && at.current > 0) {
      // It takes its seconds until the needle is down; by then it is sure.
      end("stopped", side);
    } else if (view.status === "no answer" && side) asking.current = side;
    else if (view.status === "done" || (view.status === "no answer" && step.step !== "run-up")) {
      if (at.current + 1 < steps.current.length) begin(at.current + 1);
      else end("done");
    } else asking.current = undefined;
    setCoaching({
      step,
      at: at.current,
      of: steps.current.length,
      view,
      now,
      ...(asking.current && { asks: asking.current }),
    });
  }, [begin, end]);

  useEffect(() => {
    over.current = false;
    monitor.current = latest.current.listen({
      onLines: (more) => {
        if (over.current) return;
        lines.current.push(...more);
        if (lines.current.length > MOST_LINES) lines.current.splice(0, 1000);
        look();
        // The needles are drawn as often as they come, ten times a second at most.
        const moment = performance.now();
        if (moment - drawn.current < 90) return;
        drawn.current = moment;
        for (const draw of watchers.current) draw();
      },
      onTrouble: (words) => {
        setCoaching((before) => ({ ...before, trouble: words }));
      },
    });
    return () => {
      monitor.current?.close();
      stopSpeaking();
    };
  }, [look]);

  const watch = useCallback((draw: () => void) => {
    watchers.current.add(draw);
    return () => {
      watchers.current.delete(draw);
    };
  }, []);

  return {
    coaching,
    lines,
    /** Calls when new lines are there, ten times a second at most: what draws the needles listens, and nothing else is drawn anew. */
    watch,
    /** The key is where it should be, and nothing dropped. */
    sure: () => end("no drop", asking.current),
    /** It was not turned: the same step again. */
    again: () => {
      asking.current = undefined;
      begin(at.current);
    },
    /** Goes on without this step's answer. */
    skip: () => {
      asking.current = undefined;
      if (at.current + 1 < steps.current.length) begin(at.current + 1);
      else end("done");
    },
    /** Ends here with what there is. */
    finish: () => end("lost"),
  };
}

export type Coach = ReturnType<typeof useCoach>;

/** So many lines at the beginning and the end of a long wait are looked at one by one; of those between every so many. */
const FIRST = 80;
const LAST = 300;
const BETWEEN = 300;

/** The lines since a moment, thinned in the middle where it is long ago. */
function linesFrom(lines: readonly TraceLine[], from: number): TraceLine[] {
  let start = Math.max(0, lines.length - 10);
  while (start > 0 && (lines[start - 1]?.t ?? 0) >= from) start--;
  const end = lines.length - LAST;
  if (end - start <= FIRST + BETWEEN) return lines.slice(start);
  const stride = Math.ceil((end - start - FIRST) / BETWEEN);
  const found = lines.slice(start, start + FIRST);
  for (let i = start + FIRST; i < end; i += stride) found.push(lines[i] as TraceLine);
  for (let i = end; i < lines.length; i++) found.push(lines[i] as TraceLine);
  return found;
}

function meanRpm(lines: readonly TraceLine[], from: number): number | undefined {
  let sum = 0;
  let count = 0;
  for (let i = lines.length - 1; i >= 0 && (lines[i]?.t ?? 0) >= from; i--) {
    const rpm = lines[i]?.rpm;
    if (rpm === undefined) continue;
    sum += rpm;
    count++;
  }
  return count > 0 ? sum / count : undefined;
}
