import { tankOfKey } from "../../../readings/reading-keys";
import { emptyDictionary } from "../dictionary";
import { canBeUndone, type EventHandler, reopenItem } from "../event-handler";
import type { UpliftSeen } from "../fluid-events";

/** Earlier dips and drains of the refuelled tanks no longer count and are asked again. */
export const fuelUplifted: EventHandler<"fuel.uplifted"> = (preflight, event) => {
  const { id: eventId, at, data } = event;
  const { tankId } = data;
  const before: UpliftSeen["before"] = {};
  // Items asked again, in their order of answering: the preflight returns to the first of them before boarding.
  const again: { itemId: string; eventId: string }[] = [];
  const reopen = (itemId: string) => {
    const answered = preflight.now.answers[itemId];
    if (answered) again.push({ itemId, eventId: answered.eventId });
    delete preflight.own("answers")[itemId];
  };
  for (const [key, reading] of Object.entries(preflight.now.readings)) {
    const looked = tankOfKey(key);
    if (!looked || (tankId !== undefined && looked.tankId !== tankId)) continue;
    before[key] = { value: reading.value, unit: reading.unit };
    delete preflight.own("readings")[key];
    // The gauge reading needed the master switch on: it no longer counts but is not asked again.
    if (looked.by !== "gauge") reopen(reading.itemId);
  }
  preflight.put({ uplifts: [...preflight.now.uplifts, { ...data, eventId, at, before }] });
  // Every sample was taken before this fuel was added.
  for (const [itemId, taken] of Object.entries(preflight.now.samples)) {
    preflight.put({ earlierSamples: [...preflight.now.earlierSamples, ...taken] });
    reopen(itemId);
  }
  const [first] = again.sort((a, b) => (a.eventId < b.eventId ? -1 : 1));
  if (first) reopenItem(preflight, first.itemId);
  preflight.put({ samples: emptyDictionary() });
  preflight.drop("rocked");
  canBeUndone(preflight, event);
};
