import { newId } from "@cravix/contract";
import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { defaultPreferences } from "@cravix/core/aircraft/preferences";
import { type Card, cardOf } from "@cravix/core/cards/card-of";
import { composeList } from "@cravix/core/checklist/list/compose-list";
import { offeredConditions } from "@cravix/core/checklist/list/turnaround-list";
import { currentItem } from "@cravix/core/checklist/next-item";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldIncrementally, foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import { leadingDigits, typedNumber } from "@cravix/core/readings/leading-digits";
import { isReadingOf, READING } from "@cravix/core/readings/reading-keys";
import { airfield, group, HEALTHY, rules } from "@cravix/demo";
import { type Figure, plain, within } from "../figure";

/**
 * Maximum confirmations acceptable to a daily pilot: first flight of the day, and turnaround (figures from an instructor and a
 * mechanic).
 */
const MOST: Record<string, { first: number; turnaround: number }> = {
  "tarrow-4": { first: 70, turnaround: 35 },
  "halden-six": { first: 85, turnaround: 42 },
  "dovrane-twin": { first: 85, turnaround: 42 },
  "corrant-r": { first: 75, turnaround: 38 },
  "lumen-sport": { first: 60, turnaround: 30 },
  "ansel-2": { first: 50, turnaround: 25 },
};

/** Items answered by one button from a healthy trace. */
const TRACED = [
  READING.magnetoBase,
  READING.magnetoRight,
  READING.magnetoLeft,
  READING.carburettorHot,
  READING.carburettorColdAgain,
  "suction",
  "volts.charging",
  "idle",
] as const;

interface Taps {
  items: number;
  confirmations: number;
  taps: number;
  longestNumber: number;
}

type One = (typeof group)[number];

/** Runs a healthy preflight with the fewest taps: `cards` as for a daily pilot, `traced` with the engine monitor. */
function preflight(
  { type, aircraft }: One,
  day: { turnaround: boolean; cards: boolean; traced: boolean },
): Taps {
  const offered = offeredConditions(type);
  const conditions = offered.filter((c) => c === (day.turnaround ? "turnaround" : "first of the day"));
  const list = composeList({
    type,
    aircraft: { ...aircraft, ownItems: [] },
    conditions,
    openDiscrepancies: [],
    airfield,
    rules,
    preferences: {
      ...defaultPreferences(type.recommended),
      cards: day.cards ? "groups" : "one item each",
    },
  });
  const id = newId(0);
  const base = { streamId: id, deviceId: id, crewId: "ines", at: "2026-05-01T08:00:00.000Z" };
  const events: PreflightEvent[] = [
    {
      ...base,
      id,
      type: "preflight.started",
      data: { registration: list.registration, listHash: "", conditions },
    },
    // Held surfaces need a second person, already present.
    { ...base, id: newId(1), type: "crew.joined", data: { crewId: "kofi" } },
  ];
  let state: PreflightState = foldPreflight(id, events);
  const answer = (item: Item) => {
    events.push({
      ...base,
      id: newId(events.length + 1),
      type: "item.answered",
      data: { itemId: item.id, outcome: "checked" },
    });
  };
  const done: Taps = { items: list.items.length, confirmations: 0, taps: 0, longestNumber: 0 };
  const engines = new Set<string>();
  for (let item = currentItem(list, state); item; item = currentItem(list, state)) {
    const station = item.station;
    const card: Card | undefined = cardOf(list, state, item);
    const engineOf = (one: Item) => (one.reading ? station : undefined);
    if (day.traced && item.reading && isReadingOf(item.reading.key, READING.magnetoBase)) {
      // The run-up of this engine is flown, read, and recorded by one button.
      const engine = engineOf(item) ?? "";
      engines.add(engine);
      const twin = (type.engines?.length ?? 1) > 1;
      for (const one of list.items) {
        const own = !twin || one.station === station;
        const known = one.traced || (one.reading && isReadingOf(one.reading.key, ...TRACED));
        const phase = list.stations.find((s) => s.id === one.station)?.phase;
        if (own && known && phase === "run-up" && !state.answers[one.id]) answer(one);
      }
      done.confirmations++;
      done.taps += 2;
    } else {
      const parts = card?.parts ?? [item];
      const numbers = parts.filter((part) => part.reading);
      for (const part of numbers) {
        const keys = keysFor(part);
        done.longestNumber = Math.max(done.longestNumber, keys + 1);
        done.taps += keys;
      }
      const choices = parts.filter((part) => part.kind === "choice");
      // On a card each number but the last ends with Next; a choice moves on automatically.
      done.taps += Math.max(0, numbers.length - 1) + (card ? choices.length : 0);
      done.taps += item.kind === "pull" ? (item.expected ?? 1) : 1;
      done.confirmations++;
      for (const part of [...parts].reverse()) answer(part);
    }
    state = foldIncrementally(undefined, id, events).state;
  }
  return done;
}

/** Key presses for a healthy reading; dipstick and gauges are set by touch. */
function keysFor(part: Item): number {
  const { reading } = part;
  if (!reading) return 0;
  const text = HEALTHY[reading.key] ?? HEALTHY[reading.key.replace(/\.(left|right|main)$/, "")] ?? "5";
  if (isReadingOf(reading.key, "fuel.dip", "fuel.sight", "fuel.gauge", "oil.level")) return 1;
  const expected = leadingDigits(reading, Number(text));
  for (let from = text.length - 1; from > 0; from--) {
    for (const rest of [text.slice(from).replace(".", ""), text.slice(from)])
      if (expected && typedNumber(rest, expected) === Number(text)) return rest.length;
  }
  return text.length;
}

/** Confirmations of a daily pilot on a healthy aircraft, and all taps, compared with the same preflight item by item. */
export function taps(): Figure[] {
  return group.flatMap((one): Figure[] => {
    const most = MOST[one.type.id];
    if (!most) return [];
    return [false, true].flatMap((turnaround): Figure[] => {
      const day = turnaround ? "turnaround" : "first flight of the day";
      const single = preflight(one, { turnaround, cards: false, traced: false });
      const byHand = preflight(one, { turnaround, cards: true, traced: false });
      const fewest = preflight(one, { turnaround, cards: true, traced: one.type.runUp !== undefined });
      const of = `${one.type.name}, ${day}`;
      return [
        within(
          `${of}: confirmations`,
          fewest.confirmations,
          "taps",
          single.confirmations,
          turnaround ? most.turnaround : most.first,
        ),
        plain(
          `${of}: confirmations, run-up entered by hand`,
          byHand.confirmations,
          "taps",
          single.confirmations,
        ),
        plain(`${of}: all taps including the keypad`, fewest.taps, "taps", single.taps),
        within(
          `${of}: taps for the longest number, including confirmation`,
          byHand.longestNumber,
          "taps",
          7,
          4,
        ),
      ];
    });
  });
}
