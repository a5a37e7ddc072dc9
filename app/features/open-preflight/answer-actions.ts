import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Card } from "@cravix/core/cards/card-of";
import type { Sample } from "@cravix/core/fuel/drain/fuel-sample";
import { blockedBy, stationBlockedBy } from "@cravix/core/ledger/blocked-by";
import { type EventInput, record, recordAll } from "../../store/preflight/record";
import type { AppDispatch } from "../../store/state/root-state";
import type { HowRead } from "./how-read";
import type { LoadedPreflight } from "./use-preflight";

/** The preflight that an action is for. */
export interface ActsOn extends Pick<LoadedPreflight, "list" | "state"> {
  dispatch: AppDispatch;
}

/** Answers to items: one item, a reading, a card, a sample, a station from memory. Same check as on the screen: no input path bypasses a gate or rule. */
export function answerActions({ dispatch, list, state }: ActsOn) {
  const id = state.id;
  const free = (target: Item) => !blockedBy(list, state, target);
  // With two people one reads and the other answers.
  const byCrewId = state.joined[0];
  return {
    checked: (target: Item, value?: string, caught?: boolean) => {
      if (!free(target)) return;
      dispatch(
        record(id, "item.answered", {
          itemId: target.id,
          outcome: "checked",
          ...(value !== undefined && { value }),
          ...(caught && { caught }),
          ...(byCrewId && { byCrewId }),
        }),
      );
    },
    reading: (target: Item, value: number, how: HowRead = {}) => {
      if (!target.reading || !free(target)) return;
      const { key, unit } = target.reading;
      dispatch(record(id, "reading.taken", { itemId: target.id, key, value, unit, ...how }));
    },
    /** One answer to all parts of a card, recorded as one event per part, all or none. Numbers and choices by item. */
    cardChecked: (card: Card, values: CardValues = {}) => {
      // Last part first: the preflight continues after the first part, so items in between are not skipped.
      const all = [...card.parts]
        .reverse()
        .filter(free)
        .map((part) => partChecked(part, { list, card: card.id, value: values[part.id], byCrewId }));
      if (all.length > 0) dispatch(recordAll(id, all));
    },
    cardLater: (card: Card) =>
      void dispatch(
        recordAll(
          id,
          card.parts.map((part): EventInput => ({ type: "item.postponed", data: { itemId: part.id } })),
        ),
      ),
    /** Records a sample, clean or not. */
    sample: (target: Item, sample: Sample) => {
      if (!free(target)) return;
      const fate = sample.look === "clean" ? (list.preferences?.sample ?? "discarded") : "discarded";
      dispatch(record(id, "sample.taken", { ...sample, itemId: target.id, fate }));
    },
    rocked: () => void dispatch(record(id, "wings.rocked", {})),
    blade: (target: Item, blade: number) => {
      if (free(target)) dispatch(record(id, "blade.pulled", { itemId: target.id, blade }));
    },
    later: (target: Item) => void dispatch(record(id, "item.postponed", { itemId: target.id })),
    /** Records a whole station done from memory; none of its items may be blocked unless postponed. */
    flowed: (stationId: string) => {
      if (stationBlockedBy(list, state, stationId)) return;
      dispatch(record(id, "station.flowed", { stationId }));
    },
  };
}

/** Numbers and choices of a card, by item. */
type CardValues = Readonly<Record<string, number | string>>;

/** The event of one part of a card that is as it should be. */
function partChecked(
  part: Item,
  {
    list,
    card,
    value,
    byCrewId,
  }: Pick<ActsOn, "list"> & {
    card: string;
    value: number | string | undefined;
    byCrewId: string | undefined;
  },
): EventInput {
  if (part.reading && typeof value === "number")
    return {
      type: "reading.taken",
      data: { itemId: part.id, key: part.reading.key, value, unit: part.reading.unit, card },
    };
  if (part.kind === "sample")
    return {
      type: "sample.taken",
      data: { itemId: part.id, look: "clean", fate: list.preferences?.sample ?? "discarded", card },
    };
  return {
    type: "item.answered",
    data: {
      itemId: part.id,
      outcome: "checked",
      card,
      ...(typeof value === "string" && { value }),
      ...(byCrewId && { byCrewId }),
    },
  };
}
