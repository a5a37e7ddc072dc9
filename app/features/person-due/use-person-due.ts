import { can } from "@cravix/contract/client";
import {
  applyPersonEvents,
  type PersonEvent,
  type PersonRecord,
} from "@cravix/core/airworthiness/people/person-due";
import { useEffect, useMemo, useState } from "react";
import { ProblemError, ServerUnreachableError } from "../../device/api";
import { happenedTo } from "../../store/preflight/local-pilot";
import { askDue, type KeptRecord, savedDueItems } from "../../store/preflight/own-due";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import { retryWithBackoff } from "../../store/server/retry-with-backoff";
import { useCrew } from "../../store/server/server-state";
import { useAppSelector } from "../../store/state/hooks";

/** Delay before "unknown" is shown, ms: a line that appears briefly would move the page. */
const SOON_MS = 700;

/** The server refused. Being busy does not count. */
const isNo = (error: unknown) => error instanceof ProblemError && error.problem.status < 500;

/**
 * Due items of a person, if permitted: from the server plus local entries. One's own are stored on the device and shown until the
 * server responds, so that personal minimums always apply. `may` is false without permission, `away` if offline (retried until
 * online), `unknown` without the server's data.
 */
export function usePersonDue(personId: string | undefined) {
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const toSend = useAppSelector((state) => state.sync.toSend);
  const role = crew.find((member) => member.id === me)?.role;
  const own = me !== null && me === personId;
  const may = personId !== undefined && (own || can(role && { role }, "person.others"));
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
      const kept = own ? await savedDueItems(personId) : undefined;
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
