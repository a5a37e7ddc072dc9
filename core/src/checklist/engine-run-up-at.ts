import { isReadingOf, READING, readingName } from "../readings/reading-keys";
import type { ComposedList } from "./list/compose-list";

/** Engine that is run up at a station, from the rpm read there; undefined if none. A single engine has no name. */
export function engineRunUpAt(
  { items }: Pick<ComposedList, "items">,
  stationId: string,
): { engine: string | undefined } | undefined {
  const base = items.find(
    ({ station, reading }) => station === stationId && isReadingOf(reading?.key, READING.magnetoBase),
  );
  return base?.reading && { engine: readingName(base.reading.key)?.subject };
}
