import type { Observation, OpenQuestion } from "@cravix/core/diagnosis";
import {
  type MagnetoSideOrder,
  type Mark,
  orderByAnswer,
  type Trace,
  type TraceSource,
} from "@cravix/core/run-up";
import type { RunUpEngine } from "@cravix/core/run-up-entry";
import { useCallback, useEffect, useRef, useState } from "react";
import type { RunUpAnswer, RunUpQuestion } from "../../../device/workers/run-up.worker";
import { readRunUpOnDevice } from "../../../device/workers/run-up-work";
import type { LoadedPreflight } from "../../open-preflight";
import { dropRunUp, type RunUpDraft, savedRunUpDraft, saveRunUpDraft } from "../run-up-draft";

/** A run-up with its source and results. */
export interface ReadRunUp extends RunUpDraft {
  answer: RunUpAnswer;
  /** Practice: nothing is recorded or saved. */
  practice?: boolean;
  /** Restored from the device; not recorded yet. */
  kept?: boolean;
}

/** Engine with the sides named for this run-up: by name if known, else first and second. */
export const engineWithAnswers = (engine: RunUpEngine, { answer, sides }: ReadRunUp): RunUpEngine => ({
  ...engine,
  profile: orderByAnswer(engine.profile, answer.reading.prompted, sides),
});

/** A measurement before it is read. */
export interface Measured {
  trace: Trace;
  source: TraceSource;
  marks?: Mark[];
  told?: Observation[];
  practice?: boolean;
  /** Measured after this remedy, to compare with the observations before it. */
  remedy?: "cleared";
  /** Plug clearing alone, without a run-up before it. */
  cleared?: boolean;
}

/** Reads a measurement, adds the pilot's answers, and saves everything on the device until it is recorded. */
export function useReadRunUp({ state }: Pick<LoadedPreflight, "state">, engine: RunUpEngine) {
  const walkId = state.id;
  /** When a run-up of this engine was last recorded. */
  const written = state.runUps[engine.name ?? "engine"]?.at;

  const [read, setRead] = useState<ReadRunUp>();
  const [problem, setProblem] = useState<string>();
  /** The latest request: a second tap adds to it while the first is in progress. */
  const asking = useRef<RunUpDraft | undefined>(undefined);
  const latest = useRef(engine);
  latest.current = engine;
  /** True once something was started here, so that an older saved run-up does not replace it. */
  const begun = useRef(false);

  const ask = useCallback(
    async (draft: RunUpDraft, more: Pick<ReadRunUp, "practice" | "kept"> = {}) => {
      const { profile, limits, context, name } = latest.current;
      const { trace, marks, told, asked, sides, before } = draft;
      asking.current = draft;
      const question: RunUpQuestion = {
        trace,
        profile,
        limits,
        context,
        told,
        asked,
        ...(marks && { marks }),
        ...(sides && { sides }),
        ...(before && { before }),
      };
      // Without storage it still reads, but does not survive a reload.
      if (!more.practice) void saveRunUpDraft(walkId, name, draft).catch(() => undefined);
      try {
        const answer = await readRunUpOnDevice(question);
        if (more.kept && begun.current) return;
        setRead({ ...draft, ...more, answer });
        setProblem(undefined);
      } catch (error) {
        setProblem((error as Error).message);
      }
    },
    [walkId],
  );

  const first = useRef(written);
  useEffect(() => {
    const bringBack = async () => {
      const { name } = latest.current;
      const draft = await savedRunUpDraft(walkId, name);
      if (!draft) return;
      // Deleted only after the record is stored, so that closing the page loses nothing.
      if (first.current !== undefined && first.current >= draft.at) await dropRunUp(walkId, name);
      else if (!begun.current) await ask(draft, { kept: true });
    };
    void bringBack().catch(() => undefined);
  }, [walkId, ask]);

  return {
    read,
    problem,
    begin: () => {
      begun.current = true;
    },
    /** Reads a new trace. */
    take: ({ trace, source, marks, told = [], practice, remedy, cleared }: Measured) =>
      ask(
        {
          at: new Date().toISOString(),
          trace,
          source,
          told,
          asked: [],
          tries: (read?.tries ?? 0) + (remedy || cleared ? 1 : 0),
          ...(marks && { marks }),
          ...(remedy && read && { before: { observations: read.answer.observations, remedy } }),
        },
        practice ? { practice } : {},
      ),
    /** Reads the same trace with the pilot's answer; a second answer to a question replaces the first. */
    tell: (
      told: Observation[],
      { asked, sides }: { asked?: OpenQuestion["id"]; sides?: MagnetoSideOrder } = {},
    ) => {
      const draft = asking.current;
      if (!draft || (asked && draft.asked.includes(asked))) return;
      const same = (a: Observation, b: Observation) => a.feature === b.feature && a.side === b.side;
      void ask(
        {
          ...draft,
          asked: asked ? [...draft.asked, asked] : draft.asked,
          told: [...draft.told.filter((old) => !told.some((now) => same(now, old))), ...told],
          ...(sides && { sides: { ...draft.sides, ...sides } }),
        },
        read?.practice ? { practice: true } : {},
      );
    },
    /** To be repeated. */
    forget: () => {
      asking.current = undefined;
      setRead(undefined);
      void dropRunUp(walkId, latest.current.name).catch(() => undefined);
    },
  };
}
