import { mayDo } from "@cravix/contract/client";
import { type PersonHappening, type PersonRecord, personWith } from "@cravix/core";
import { useEffect, useMemo, useState } from "react";
import { api, NotReached } from "../../device/api";
import { keepNote, readNote } from "../../device/log/notes";
import { useAppSelector } from "../../store/hooks";
import { useCrew } from "../../store/server/server-state";
import { eventsHere } from "../../store/walk/discrepancies-here";
import { happenedTo, type KeptRecord, OWN_DUE_ITEMS } from "../../store/walk/minima-here";

type Told = KeptRecord;

const NOTE = OWN_DUE_ITEMS;

/**
 * What is due of a person, where whoever holds this device may see it: the server's word, and what was entered here since. Only one's own is kept on the
 * device. `may` is false where it is nobody else's business; `away` where the network is missing and nothing is kept.
 */
export function usePersonDue(personId: string | undefined) {
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const toSend = useAppSelector((state) => state.sync.toSend);
  const role = crew.find((member) => member.id === me)?.role;
  const own = me !== null && me === personId;
  const may = personId !== undefined && (own || mayDo(role, "see what is due of others"));
  const [told, setTold] = useState<Told & { of: string }>();
  const [here, setHere] = useState<PersonHappening[]>([]);
  const [away, setAway] = useState(false);
  useEffect(() => {
    if (!may || personId === undefined || toSend < 0) return;
    let left = false;
    const load = async () => {
      const saidAt = Date.now();
      let now: Told | undefined;
      try {
        now = { record: (await api.personDue(personId)) as PersonRecord, saidAt };
        if (own) void keepNote(NOTE + personId, now);
        if (!left) setAway(false);
      } catch (error) {
        if (!left) setAway(error instanceof NotReached);
        now = own ? await readNote<Told>(NOTE + personId).catch(() => undefined) : undefined;
      }
      const events = await eventsHere({ saidAt: now?.saidAt ?? 0 }).catch(() => []);
      if (left) return;
      if (now) setTold({ ...now, of: personId });
      setHere(happenedTo(personId, events));
    };
    void load();
    return () => {
      left = true;
    };
  }, [may, own, personId, toSend]);
  const record = useMemo((): PersonRecord | undefined => {
    const base = told?.of === personId ? told?.record : undefined;
    if (!base && here.length === 0) return undefined;
    return personWith(base, here);
  }, [told, here, personId]);
  return { may, own, record, away };
}
