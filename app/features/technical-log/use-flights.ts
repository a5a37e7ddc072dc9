import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { useMemo } from "react";
import { type ShownLine, useFlightsInfiniteQuery } from "../../store/server/records-api";

export type { ShownLine } from "../../store/server/records-api";

/** Technical log, newest first: the server's pages plus unsent entries of this device. */
export function useFlights(registration: string, events: readonly PreflightEvent[]) {
  const { data, error, isError, hasNextPage, fetchNextPage, refetch } = useFlightsInfiniteQuery(
    registration,
    { refetchOnMountOrArgChange: true },
  );
  const away = error !== undefined && "reached" in error && !error.reached;
  const pages = useMemo(
    () => data?.pages.flatMap(({ items }) => items) ?? (isError ? [] : undefined),
    [data, isError],
  );
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
  return {
    lines,
    away,
    more: hasNextPage ? () => void fetchNextPage() : undefined,
    reload: () => void refetch(),
  };
}
