import { setFlagsFromString } from "node:v8";
import { runInNewContext } from "node:vm";
import { newId } from "@cravix/contract";
import type { Condition } from "@cravix/core/aircraft/aircraft-type";
import { defaultPreferences } from "@cravix/core/aircraft/preferences";
import { type ComposeInput, composeList } from "@cravix/core/checklist/list/compose-list";
import { offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldIncrementally, foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { airfield, group, rules } from "@cravix/demo";
import { type Figure, plain, quantile, within } from "../figure";
import { so } from "../size";

const ROUNDS = so(300, 2);
const ITEMS = 200;
const EVENTS = 2000;

/** Milliseconds per round, after warm-up rounds. */
function timed(work: () => unknown, rounds = ROUNDS): number[] {
  for (let i = 0; i < rounds; i++) work();
  return Array.from({ length: rounds }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
}

function composeInput(): ComposeInput {
  const { aircraft, type } = group.find((g) => g.aircraft.registration === "QX-HLD") ?? {};
  if (!aircraft || !type) throw new Error("no six-seater in the demo");
  const withConditions = (conditions: Condition[]): ComposeInput => ({
    type,
    aircraft,
    airfield,
    rules,
    conditions,
    openDiscrepancies: [],
    preferences: defaultPreferences(type.recommended),
    seed: "bench",
  });
  // All compatible conditions, filled up with added items to a round number.
  const conditions = offeredConditions(type).filter((condition) => condition !== "turnaround");
  while (conditions.length > 0 && composeList(withConditions(conditions)).items.length > ITEMS)
    conditions.pop();
  const all = withConditions(conditions);
  const missing = ITEMS - composeList(all).items.length;
  const [pattern] = type.items;
  if (!pattern || missing < 0)
    throw new Error(`the six-seater has more than ${ITEMS} items without special conditions`);
  const ownItems = Array.from({ length: missing }, (_, i) => ({ ...pattern, id: `own.${i}` }));
  return { ...all, aircraft: { ...aircraft, ownItems } };
}

/** Two thousand events of one preflight: answers, readings, interruptions, undos. */
function manyEvents(): PreflightEvent[] {
  const streamId = newId(0);
  return Array.from({ length: EVENTS }, (_, i) => {
    const at = new Date(Date.UTC(2026, 4, 1) + i * 1000).toISOString();
    const base = {
      id: newId(Date.UTC(2026, 4, 1) + i),
      streamId,
      deviceId: streamId,
      crewId: "ines",
      at,
    };
    if (i === 0)
      return {
        ...base,
        type: "preflight.started",
        data: { registration: "QX-TAR", listHash: "", conditions: [] },
      };
    if (i % 50 === 0) return { ...base, type: i % 100 === 0 ? "interrupted" : "resumed", data: {} };
    if (i % 7 === 0)
      return {
        ...base,
        type: "reading.taken",
        data: { itemId: `i${i % 400}`, key: `k${i % 400}`, value: i, unit: "rpm" },
      };
    return { ...base, type: "item.answered", data: { itemId: `i${i % 400}`, outcome: "checked" } };
  }) as PreflightEvent[];
}

/** Core calculations at every start and answer, compared with plain work on the same data in the same run. */
export function coreFigures(): Figure[] {
  const input = composeInput();
  const list = composeList(input);
  const composed = timed(() => composeList(input));
  const copied = timed(() => JSON.parse(JSON.stringify(list)));

  // Parsed from JSON, as from storage or network, all of one shape.
  const events: PreflightEvent[] = JSON.parse(JSON.stringify(manyEvents()));
  const id = events[0]?.streamId ?? "";
  const folded = timed(() => foldPreflight(id, events), 60);
  const sorted = timed(() => [...events].sort((a, b) => (a.id < b.id ? -1 : 1)), 60);
  const before = foldIncrementally(undefined, id, events.slice(0, -1));
  const oneMore = timed(() => foldIncrementally(before, id, events), 2000);
  const spread = timed(() => [...events], 2000);

  const heapBefore = heap();
  const kept = Array.from({ length: 20 }, () => foldIncrementally(undefined, id, [...events]));
  const perFold = (heap() - heapBefore) / kept.length;
  const heapMiddle = heap();
  const copies = Array.from({ length: 20 }, () => structuredClone(events));
  const perCopy = (heap() - heapMiddle) / copies.length;
  return [
    within(
      "composing a checklist of 200 items, median",
      quantile(composed, 0.5),
      "ms",
      quantile(copied, 0.5),
      5,
    ),
    within("replaying 2,000 events, median", quantile(folded, 0.5), "ms", quantile(sorted, 0.5), 10),
    within(
      "applying one event after 2,000, median",
      quantile(oneMore, 0.5),
      "ms",
      quantile(spread, 0.5),
      0.2,
    ),
    plain(
      "applying one event after 2,000, 99th percentile",
      quantile(oneMore, 0.99),
      "ms",
      quantile(spread, 0.99),
    ),
    plain("memory of a preflight state after 2,000 events", perFold / 1024, "KiB", perCopy / 1024),
  ];
}

/** Heap in use after garbage collection. */
function heap(): number {
  setFlagsFromString("--expose_gc");
  runInNewContext("gc")();
  return process.memoryUsage().heapUsed;
}
