import { can } from "@cravix/contract/client";
import {
  applyPersonEvents,
  type PersonEvent,
  type PersonRecord,
} from "@cravix/core/airworthiness/people/person-due";
import { skipToken } from "@reduxjs/toolkit/query/react";
import { useEffect, useMemo, useState } from "react";
import { happenedTo } from "../../store/preflight/local-pilot";
import { savedDueItems } from "../../store/preflight/own-due";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import { retryWithBackoff } from "../../store/server/retry-with-backoff";
import { useCrew } from "../../store/server/server-state";
import { useAppSelector } from "../../store/state/hooks";
import { type KeptRecord, type ServerError, serverApi } from "../../store/state/server-api";

/** Delay before "unknown" is shown, ms: a line that appears briefly would move the page. */
const SOON_MS = 700;

/** The server refused. Being busy does not count. */
const isNo = (error: object | undefined) => ((error as ServerError | undefined)?.status ?? 500) < 500;

/**
 * Due items of a person, if permitted: from the server plus local entries. One's own are stored on the device and shown until the
 * server responds, so that personal minimums always apply. `may` is false without permission, `away` if offline (retried until
 * online), `unknown` without the server's data.
 */
export function usePersonDue(personId: string | undefined) {
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === me)?.role;
  const own = me !== null && me === personId;
  const may = personId !== undefined && (own || can(role && { role }, "person.others"));
  const { told, error } = useTold(may ? personId : undefined, own);
  const here = useEventsHere(may ? personId : undefined, told?.saidAt);
  const late = useLate(may ? personId : undefined);
  const record = useMemo((): PersonRecord | undefined => {
    if (!told && here.length === 0) return undefined;
    return applyPersonEvents(told?.record, here);
  }, [told, here]);
  const away = error !== undefined && "reached" in error && !error.reached;
  return { may, own, record, away, unknown: may && late && told === undefined };
}

/** What the server said, or what is stored of one's own until it does; asked again until it answers. */
function useTold(personId: string | undefined, own: boolean) {
  const [kept, setKept] = useState<KeptRecord & { of: string }>();
  const { currentData, error, refetch, isUninitialized } = serverApi.usePersonDueQuery(
    personId === undefined ? skipToken : { personId, own },
    { refetchOnMountOrArgChange: true },
  );
  useEffect(() => {
    if (personId === undefined || !own) return undefined;
    let left = false;
    void savedDueItems(personId).then((found) => {
      if (!left && found) setKept({ ...found, of: personId });
    });
    return () => {
      left = true;
    };
  }, [personId, own]);
  const failed = error !== undefined && !isNo(error);
  useEffect(() => {
    if (!failed || isUninitialized) return undefined;
    const left = new AbortController();
    // The request that failed was the first attempt.
    let first = true;
    void retryWithBackoff(async () => {
      if (first) {
        first = false;
        return false;
      }
      const again = await refetch();
      return again.error === undefined || isNo(again.error);
    }, left.signal);
    return () => left.abort();
  }, [failed, isUninitialized, refetch]);
  return { told: currentData ?? (kept?.of === personId ? kept : undefined), error };
}

const NONE: PersonEvent[] = [];

/** Entries about this person on this device that the server's data may not include. */
function useEventsHere(personId: string | undefined, saidAt: number | undefined): PersonEvent[] {
  const toSend = useAppSelector((state) => state.sync.toSend);
  const [here, setHere] = useState<{ of: string; events: PersonEvent[] }>();
  useEffect(() => {
    if (personId === undefined || toSend < 0) return undefined;
    let left = false;
    const show = (events: PersonEvent[]) => {
      if (!left) setHere({ of: personId, events });
    };
    unsyncedEvents({ saidAt: saidAt ?? 0 }).then(
      (events) => show(happenedTo(personId, events)),
      () => show([]),
    );
    return () => {
      left = true;
    };
  }, [personId, saidAt, toSend]);
  return here !== undefined && here.of === personId ? here.events : NONE;
}

/** True once somebody has waited long enough for this person's items to be told that they are unknown. */
function useLate(personId: string | undefined): boolean {
  const [late, setLate] = useState<string>();
  useEffect(() => {
    if (personId === undefined) return undefined;
    const timer = setTimeout(() => setLate(personId), SOON_MS);
    return () => clearTimeout(timer);
  }, [personId]);
  return personId !== undefined && late === personId;
}
