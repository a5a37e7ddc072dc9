import type { Observation, OpenQuestion } from "@cravix/core/diagnosis";
import { asTold, type MagnetoSideOrder, type Mark, type Trace, type TraceSource } from "@cravix/core/run-up";
import type { RunUpEngine } from "@cravix/core/run-up-entry";
import { useCallback, useEffect, useRef, useState } from "react";
import type { RunUpAnswer, RunUpQuestion } from "../../../device/workers/run-up.worker";
import { readRunUpHere } from "../../../device/workers/run-up-work";
import type { Walk } from "../../preflight/use-preflight";
import { dropRunUp, keepRunUp, keptRunUp, type RunUpDraft } from "../run-up-draft";

/** A run-up that was read: what it was read from, and what came of it. */
export interface ReadRunUp extends RunUpDraft {
  answer: RunUpAnswer;
  /** On an engine that is none: nothing of it is written down or kept. */
  practice?: boolean;
  /** It stood on the device from before, and was not written down. */
  kept?: boolean;
}

/** The engine with its sides called as they are in this run-up: by their names where they are known, else the first and the second. */
export const engineAsTold = (engine: RunUpEngine, { answer, sides }: ReadRunUp): RunUpEngine => ({
  ...engine,
  profile: asTold(engine.profile, answer.reading.prompted, sides),
});

/** What was measured, before anything was read out of it. */
export interface Measured {
  trace: Trace;
  source: TraceSource;
  marks?: Mark[];
  told?: Observation[];
  practice?: boolean;
  /** Measured after this was done against what was seen before. */
  remedy?: "cleared";
  /** A clearing by itself, without a run-up before it. */
  cleared?: boolean;
}

/** Reads what was measured, takes in what the pilot adds, and keeps it all on the device until it is written down. */
export function useReadRunUp({ state }: Pick<Walk, "state">, engine: RunUpEngine) {
  const walkId = state.id;
  /** When a run-up of this engine was last written down. */
  const written = state.runUps[engine.name ?? "engine"]?.at;

  const [read, setRead] = useState<ReadRunUp>();
  const [trouble, setTrouble] = useState<string>();
  /** What was asked last: a second touch adds to it, also while the first is still being worked on. */
  const asking = useRef<RunUpDraft | undefined>(undefined);
  const latest = useRef(engine);
  latest.current = engine;
  /** Something was begun here: what was kept from before must not come in between. */
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
      // A device that keeps nothing still reads: the page only does not survive a reload then.
      if (!more.practice) void keepRunUp(walkId, name, draft).catch(() => undefined);
      try {
        const answer = await readRunUpHere(question);
        if (more.kept && begun.current) return;
        setRead({ ...draft, ...more, answer });
        setTrouble(undefined);
      } catch (error) {
        setTrouble((error as Error).message);
      }
    },
    [walkId],
  );

  const first = useRef(written);
  useEffect(() => {
    const bringBack = async () => {
      const { name } = latest.current;
      const draft = await keptRunUp(walkId, name);
      if (!draft) return;
      // It goes only once what was written down is really on the device: a page closed in between loses nothing.
      if (first.current !== undefined && first.current >= draft.at) await dropRunUp(walkId, name);
      else if (!begun.current) await ask(draft, { kept: true });
    };
    void bringBack().catch(() => undefined);
  }, [walkId, ask]);

  return {
    read,
    trouble,
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
    /** The same trace once more, with what the pilot has added; a second answer to the same takes the place of the first. */
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
    /** It is to be done again. */
    forget: () => {
      asking.current = undefined;
      setRead(undefined);
      void dropRunUp(walkId, latest.current.name).catch(() => undefined);
    },
  };
}
