import type { Item } from "../../aircraft/aircraft-type";
import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { judgeReading } from "../../judgement/judge-reading";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import {
  type ReadingKind,
  readingDefinition,
  readingKey,
  readingName,
  scopeOf,
  topicOf,
} from "../../readings/reading-keys";
import { QuantityError, valueIn } from "../../units/convert";
import type { Quantity } from "../../units/format";
import { assertPlausible } from "../../units/plausible";

/** Usable readings of a preflight, with units. */
export interface UsableReadings {
  /** As read. */
  quantity(key: string): Quantity | undefined;
  /** In the unit for judging this kind. */
  value(kind: ReadingKind, subject?: string): number | undefined;
  /** Judgements of single readings against their items' limits. */
  judgements: Judgement[];
}

/**
 * Checks every reading: impossible values and incompatible units are "unjudged" with the reason, and not used by any judge; the
 * others are judged against their item's limit. Complexity: O(items).
 */
export function usableReadings(list: ComposedList, state: PreflightState): UsableReadings {
  const usable = new Map<string, Quantity>();
  const judgements: Judgement[] = [];
  for (const item of list.items) {
    const reading = item.reading && state.readings[item.reading.key];
    if (!item.reading || !reading) continue;
    const { key } = item.reading;
    const quantity = { value: reading.value, unit: reading.unit };
    const topic = topicOf(key);
    judgements.push(
      ...guarded(key, item.title, () => {
        assertUsable(item, quantity);
        usable.set(key, quantity);
        if (!item.limit) return [];
        const judged = judgeReading({
          id: key,
          subject: item.title,
          scope: scopeOf(key),
          reading: quantity,
          limit: item.limit,
          outside: item.miss,
          ...(item.caution && { caution: item.caution }),
        });
        return [{ ...judged, itemIds: [item.id] }];
      }).map((judgement) => (topic ? { ...judgement, topic } : judgement)),
    );
  }
  return {
    judgements,
    quantity: (key) => usable.get(key),
    value: (kind, subject) => {
      const quantity = usable.get(readingKey(kind, subject));
      const { unit, label } = readingDefinition(kind);
      return quantity && (unit ? valueIn(label, quantity, unit) : quantity.value);
    },
  };
}

/** Rejects incompatible units and values the instrument cannot show. */
function assertUsable({ title, reading }: Item, quantity: Quantity): void {
  if (!reading) return;
  const meant = readingName(reading.key);
  const unit = meant && readingDefinition(meant.kind).unit;
  if (unit) valueIn(title, quantity, unit);
  assertPlausible(title, valueIn(title, quantity, reading.unit), reading.unit, reading.plausible);
}

/** Turns a QuantityError into "unjudged" with its reason; other errors are program faults and rethrown. */
export function guarded(id: string, subject: string, judge: () => Judgement | Judgement[]): Judgement[] {
  try {
    const made = judge();
    return Array.isArray(made) ? made : [made];
  } catch (error) {
    if (error instanceof QuantityError) return [notAssessed(id, subject, error.message)];
    throw error;
  }
}
