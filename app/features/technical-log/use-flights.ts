import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { useCallback, useEffect, useMemo, useState } from "react";
import { api, ServerUnreachableError } from "../../device/api";

/** Log entry as displayed. */
export type ShownLine = TechnicalLogEntry & {
  corrections: number;
  struck: boolean;
  loggedBy?: string | null;
  here?: boolean;
};

/** Technical log, newest first: the server's pages plus unsent entries of this device. */
export function useFlights(registration: string, events: readonly PreflightEvent[]) {
  const [pages, setPages] = useState<ShownLine[]>();
  const [next, setNext] = useState<string>();
  const [away, setAway] = useState(false);
  const load = useCallback(
    async (before?: string) => {
      try {
        const page = await api.flights(registration, before);
        setAway(false);
        setNext(page.next);
        setPages((known) => (before ? [...(known ?? []), ...page.items] : page.items));
      } catch (error) {
        setAway(error instanceof ServerUnreachableError);
        setPages((known) => known ?? []);
      }
    },
    [registration],
  );
  useEffect(() => {
    void load();
  }, [load]);
  const lines = useMemo(() => {
    if (!pages) return undefined;
    const known = new Set(pages.map(({ id }) => id));
    const here = events.flatMap((event): ShownLine[] =>
      event.type === "flight.logged" && event.data.registration === registration && !known.has(event.id)
        ? [{ ...event.data, id: event.id, corrections: 0, struck: false, loggedBy: event.crewId, here: true }]
        : [],
    );
    const corrected = new Map(
      events.flatMap((event) =>
        event.type === "flight.corrected" ? [[event.data.of, event.data.line ?? "struck out"] as const] : [],
      ),
    );
    return [...here, ...pages]
      .map((line): ShownLine => {
        const now = corrected.get(line.id);
        if (!now || line.corrections > 0) return line;
        return now === "struck out"
          ? { ...line, struck: true, corrections: 1, here: true }
          : { ...line, ...now, corrections: 1, here: true };
      })
      .sort((a, b) => (a.off < b.off ? 1 : -1));
  }, [pages, events, registration]);
  return { lines, away, next, more: () => void load(next), reload: () => void load() };
}
