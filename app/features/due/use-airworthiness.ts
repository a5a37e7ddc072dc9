import {
  type AirworthinessSnapshot,
  airworthinessSnapshot,
  type JudgedDue,
  judgeAirworthiness,
  type RequestedFlight,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import { usualOf, whenDue } from "@cravix/core/airworthiness/plan/when-due";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { useFocusEffect } from "expo-router";
import { useCallback, useMemo, useState } from "react";
import { localAirworthiness } from "../../store/preflight/local-airworthiness";
import { unsyncedEvents } from "../../store/preflight/unsynced-events";
import { todayIn } from "../../store/server/today";
import { useAppSelector } from "../../store/state/hooks";
import type { KnownBundle } from "../../store/state/server-api";

/** Events on this device the server's data does not include yet; updated after sending. */
export function useLocalEvents(bundle: Pick<KnownBundle, "saidAt"> | undefined): PreflightEvent[] {
  const [events, setEvents] = useState<PreflightEvent[]>([]);
  const toSend = useAppSelector((state) => state.sync.toSend);
  useFocusEffect(
    useCallback(() => {
      if (bundle && toSend >= 0)
        unsyncedEvents(bundle).then(setEvents, () => {
          // If storage does not respond, use the server's data alone.
          setEvents([]);
        });
    }, [bundle, toSend]),
  );
  return events;
}

export interface Airworthiness {
  onFile: AirworthinessOnFile;
  pinned: AirworthinessSnapshot;
  today: string;
}

/** Airworthiness data of an aircraft as known here; undefined if none are on file. */
export function useAirworthiness(bundle: KnownBundle | undefined): Airworthiness | undefined {
  const events = useLocalEvents(bundle);
  return useMemo(() => {
    const onFile = bundle && localAirworthiness(bundle, events);
    if (!onFile) return undefined;
    return {
      onFile,
      pinned: airworthinessSnapshot(onFile.record, { ...onFile, daily: null }),
      today: todayIn(onFile.record.timeZone),
    };
  }, [bundle, events]);
}

/** Due items of an aircraft, judged for a flight, with their expected due days: what is not known first, then the next ones. */
export function dueRows({ onFile, pinned, today }: Airworthiness, asked: RequestedFlight) {
  const usual = usualOf(onFile.days, onFile.record.meters, today);
  return judgeAirworthiness(pinned, asked)
    .map((judged) => ({ ...judged, when: whenDue(judged.verdict.limits, usual, today) }))
    .sort(
      (a, b) =>
        Number(isUnknown(b)) - Number(isUnknown(a)) ||
        (a.when?.middle ?? "9999").localeCompare(b.when?.middle ?? "9999"),
    );
}

const isUnknown = ({ verdict }: JudgedDue) => verdict.state === "not known";

export type DueRow = ReturnType<typeof dueRows>[number];
