import { inUnit } from "@cravix/core/judgement/judgement";
import {
  type CoachStep,
  type CoachView,
  coachView,
  LiveTrace,
  type Mark,
  type RunUpProfile,
  type Trace,
  type TraceLine,
  thinMiddle,
} from "@cravix/core/run-up";
import { useCallback, useEffect, useRef, useState } from "react";
import { speak, stopSpeaking } from "../../../device/platform/speech";
import type { EngineMonitor } from "../../../device/workers/engine-monitor";

/** Samples kept: fifteen minutes at ten per second. */
const MAX_LINES = 9000;
/** During a long wait, only its start and end are examined sample by sample. */
const THINNING = { first: 80, between: 300, last: 300 };
/** Interval between evaluations, seconds of the trace. */
const LOOKS_EVERY_S = 0.3;

export type CoachEnd = "done" | "stopped" | "no drop" | "lost";

export interface Coaching {
  /** Absent before the first sample. */
  step?: CoachStep;
  at: number;
  of: number;
  view: CoachView;
  /** Side without a change: asks whether the key is really there. */
  asks?: "right" | "left";
  problem?: string;
  /** Time of the last evaluation, seconds of the trace, for plots. */
  now: number;
}

interface CoachOptions {
  sequence: (oilIsWarm: boolean) => CoachStep[];
  profile: RunUpProfile;
  listen: (on: {
    onLines: (lines: TraceLine[]) => void;
    onTrouble: (words: string) => void;
  }) => EngineMonitor;
  onEnd: (end: CoachEnd, trace: Trace | undefined, marks: Mark[], asked?: "right" | "left") => void;
}

/**
 * Runs a sequence with a monitor: prompts a step, tells the simulated pilot, watches the trace, and continues when the step is
 * done. The pilot must tap only if an expected change did not happen.
 */
export function useCoach({ sequence, profile, listen, onEnd }: CoachOptions) {
  const [log] = useState(() => new LiveTrace(MAX_LINES));
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

  const begin = useCallback(
    (index: number) => {
      at.current = index;
      const step = steps.current[index];
      const { now } = log;
      if (!step) return;
      if ((step.step === "right" || step.step === "left") && base.current === undefined)
        base.current = mean(log.since(now - 2.5).channels.rpm);
      marks.current.push({ step: step.step, t: now });
      monitor.current?.tell(step.step as never);
      speak(step.say);
    },
    [log],
  );

  const end = useCallback(
    (how: CoachEnd, asked?: "right" | "left") => {
      if (over.current) return;
      over.current = true;
      monitor.current?.close();
      latest.current.onEnd(how, log.length > 0 ? log.copy() : undefined, marks.current, asked);
    },
    [log],
  );

  const look = useCallback(() => {
    const { now } = log;
    if (over.current || now - looked.current < LOOKS_EVERY_S) return;
    looked.current = now;
    if (at.current < 0) {
      if (log.length < 15) return;
      const oil = log.last("oilTemperature");
      const least = inUnit(latest.current.profile.oilTemperature, "°F").min ?? 75;
      steps.current = latest.current.sequence(oil === undefined || oil >= least);
      begin(0);
    }
    const step = steps.current[at.current];
    if (!step) return;
    const since = marks.current.at(-1)?.t ?? 0;
    const trace = thinMiddle(log.since(since - 5), THINNING);
    const view = coachView(trace, step, since, latest.current.profile, base.current);
    const side = step.step === "right" || step.step === "left" ? step.step : undefined;
    if (view.status === "stopped" && at.current > 0) {
      // Rpm takes seconds to fall to zero; by then the stop is certain.
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
  }, [log, begin, end]);

  useEffect(() => {
    over.current = false;
    monitor.current = latest.current.listen({
      onLines: (more) => {
        if (over.current) return;
        log.add(more);
        look();
        // Plots are updated as samples arrive, at most ten times a second.
        const moment = performance.now();
        if (moment - drawn.current < 90) return;
        drawn.current = moment;
        for (const draw of watchers.current) draw();
      },
      onTrouble: (words) => {
        setCoaching((before) => ({ ...before, problem: words }));
      },
    });
    return () => {
      monitor.current?.close();
      stopSpeaking();
    };
  }, [log, look]);

  /** Clear the question immediately, so that a second tap does not answer for the other side. */
  const answered = () => {
    asking.current = undefined;
    setCoaching(({ asks: _asked, ...rest }) => rest);
  };

  const watch = useCallback((draw: () => void) => {
    watchers.current.add(draw);
    return () => {
      watchers.current.delete(draw);
    };
  }, []);

  return {
    coaching,
    log,
    /** Subscribes to new samples, at most ten times a second, without rerendering anything else. */
    watch,
    /** The key is there, and nothing dropped. */
    sure: () => {
      if (asking.current) end("no drop", asking.current);
    },
    /** The key was not turned: repeat the step. */
    again: () => {
      answered();
      begin(at.current);
    },
    /** Continues without a result for this step. */
    skip: () => {
      answered();
      if (at.current + 1 < steps.current.length) begin(at.current + 1);
      else end("done");
    },
    /** Ends with the results so far. */
    finish: () => end("lost"),
  };
}

export type Coach = ReturnType<typeof useCoach>;

function mean(row: Float64Array | undefined): number | undefined {
  const values = row?.filter((value) => !Number.isNaN(value));
  return values && values.length > 0
    ? values.reduce((sum, value) => sum + value, 0) / values.length
    : undefined;
}
