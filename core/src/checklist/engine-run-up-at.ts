import { isReadingOf, READING, readingName } from "../readings/reading-keys";
import type { ComposedList } from "./list/compose-list";

/** Which engine is run up at a station, by the rpm that is read there; undefined where none is. With one engine it has no name. */
export function engineRunUpAt(
  { items }: Pick<ComposedList, "items">,
  stationId: string,
): { engine: string | undefined } | undefined {
  const base = items.find(
    ({ station, reading }) => station === stationId && isReadingOf(reading?.key, READING.magnetoBase),
  );
  return base?.reading && { engine: readingName(base.reading.key)?.subject };
}
