import {
  type AirworthinessSnapshot,
  airworthinessSnapshot,
  type FlightAsked,
  judgeAirworthiness,
  localDate,
  type PapersOnFile,
  type PreflightEvent,
  usualOf,
  whenDue,
} from "@cravix/core";
import { useFocusEffect } from "expo-router";
import { useCallback, useMemo, useState } from "react";
import { useAppSelector } from "../../store/hooks";
import { papersHere } from "../../store/preflight/local-airworthiness";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import type { KnownBundle } from "../../store/server/server-api";

/** What happened on this device that the server's word does not have yet; again when something was sent. */
export function useEventsHere(bundle: Pick<KnownBundle, "saidAt"> | undefined): PreflightEvent[] {
  const [events, setEvents] = useState<PreflightEvent[]>([]);
  const toSend = useAppSelector((state) => state.sync.toSend);
  useFocusEffect(
    useCallback(() => {
      if (bundle && toSend >= 0)
        unsyncedEvents(bundle).then(setEvents, () => {
          // A disk that does not answer: the server's word stands alone.
          setEvents([]);
        });
    }, [bundle, toSend]),
  );
  return events;
}

export interface Papers {
  onFile: PapersOnFile;
  pinned: AirworthinessSnapshot;
  today: string;
}

/** An aircraft's papers as this device knows them; undefined where none are on file. */
export function usePapers(bundle: KnownBundle | undefined): Papers | undefined {
  const events = useEventsHere(bundle);
  return useMemo(() => {
    const onFile = bundle && papersHere(bundle, events);
    if (!onFile) return undefined;
    return {
      onFile,
      pinned: airworthinessSnapshot(onFile.record, { ...onFile, daily: null }),
      today: localDate(new Date().toISOString(), onFile.record.timeZone),
    };
  }, [bundle, events]);
}

/** Everything that is due on an aircraft, judged for a flight, with the day on which it will be due; next first. */
export function dueRows({ onFile, pinned, today }: Papers, asked: FlightAsked) {
  const usual = usualOf(onFile.days, onFile.record.meters, today);
  return judgeAirworthiness(pinned, asked)
    .map((judged) => ({ ...judged, when: whenDue(judged.verdict.limits, usual, today) }))
    .sort((a, b) => (a.when?.middle ?? "9999").localeCompare(b.when?.middle ?? "9999"));
}

export type DueRow = ReturnType<typeof dueRows>[number];
