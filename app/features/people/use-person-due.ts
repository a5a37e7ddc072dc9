import { mayDo } from "@cravix/contract/client";
import { applyPersonEvents, type PersonEvent, type PersonRecord } from "@cravix/core";
import { useEffect, useMemo, useState } from "react";
import { ProblemError, ServerUnreachableError } from "../../device/api";
import { useAppSelector } from "../../store/hooks";
import { happenedTo } from "../../store/preflight/local-minima";
import { askDue, type KeptRecord, keptDue } from "../../store/preflight/own-due";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import { retryWithBackoff } from "../../store/server/retry-with-backoff";
import { useCrew } from "../../store/server/server-state";

/** So long the server may take to say it before it is told that it is not known, ms: a line that is there for a moment only moves what stands below it. */
const SOON_MS = 700;

/** The server itself said no. That it has too much to do is no answer. */
const isNo = (error: unknown) => error instanceof ProblemError && error.problem.status < 500;

/**
 * What is due of a person, where whoever holds this device may see it: the server's word, and what was entered here since. Only one's own is kept on the
 * device, and stands there until the server has said it anew: nobody is judged without own limits for as long as an answer takes. `may` is false where it
 * is nobody else's business; `away` where the network is missing, and it is asked for until it is there; `unknown` where the server's word of it is missing.
 */
export function usePersonDue(personId: string | undefined) {
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const toSend = useAppSelector((state) => state.sync.toSend);
  const role = crew.find((member) => member.id === me)?.role;
  const own = me !== null && me === personId;
  const may = personId !== undefined && (own || mayDo(role, "person.others"));
  const [told, setTold] = useState<KeptRecord & { of: string }>();
  const [here, setHere] = useState<PersonEvent[]>([]);
  const [away, setAway] = useState(false);
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!may || personId === undefined || toSend < 0) return;
    const left = new AbortController();
    const { signal } = left;
    const timer = setTimeout(() => setLate(true), SOON_MS);
    const show = async (now: KeptRecord | undefined) => {
      const events = await unsyncedEvents({ saidAt: now?.saidAt ?? 0 }).catch(() => []);
      if (signal.aborted) return;
      if (now) setTold({ ...now, of: personId });
      setHere(happenedTo(personId, events));
    };
    const load = async () => {
      const kept = own ? await keptDue(personId) : undefined;
      if (kept) await show(kept);
      await retryWithBackoff(async () => {
        try {
          const now = await askDue(personId, own);
          if (!signal.aborted) setAway(false);
          await show(now);
          return true;
        } catch (error) {
          if (signal.aborted) return true;
          setAway(error instanceof ServerUnreachableError);
          if (!kept) await show(undefined);
          return isNo(error);
        }
      }, signal);
    };
    void load();
    return () => {
      clearTimeout(timer);
      left.abort();
    };
  }, [may, own, personId, toSend]);
  const known = told !== undefined && told.of === personId;
  const record = useMemo((): PersonRecord | undefined => {
    const base = told?.of === personId ? told?.record : undefined;
    if (!base && here.length === 0) return undefined;
    return applyPersonEvents(base, here);
  }, [told, here, personId]);
  return { may, own, record, away, unknown: may && late && !known };
}
