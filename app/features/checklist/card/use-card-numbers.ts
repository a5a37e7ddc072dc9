import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Card } from "@cravix/core/cards/card-of";
import { typedNumber, typedText } from "@cravix/core/readings/leading-digits";
import { useState } from "react";
import { usePersistedState } from "../../../device/log/use-persisted-state";
import { useBundle } from "../../../store/server/server-state";
import { pressKey } from "../../../ui/input/keypad";
import type { LoadedPreflight } from "../../open-preflight";
import { expectedFor, inputError } from "../answers/measure-panel";

/** Numbers and choices of a card while being entered, in sequence. They survive a reload and are recorded with the card. */
export function useCardNumbers(preflight: LoadedPreflight, card: Card) {
  const parts = card.parts.filter((part) => part.reading || part.kind === "choice");
  const {
    value: texts,
    change,
    drop,
  } = usePersistedState<Record<string, string>>(`card draft:${preflight.state.id}:${card.id}`, {});
  const [chosen, setChosen] = useState<string>();
  const [tried, setTried] = useState<string>();
  // Leading digits deleted for this part.
  const [whole, setWhole] = useState<string>();
  const textOf = (part: Item) => texts[part.id] ?? "";
  const bundle = useBundle(preflight.list.registration);
  const expectedOf = (part: Item) => (whole === part.id ? undefined : expectedFor(preflight, bundle, part));
  const numberOf = (part: Item) =>
    part.kind === "choice" ? undefined : typedNumber(textOf(part), expectedOf(part));
  const troubleOf = (part: Item) => {
    const value = numberOf(part);
    return value === undefined ? undefined : inputError(preflight, part, value);
  };
  const open = (part: Item) =>
    part.kind === "choice"
      ? textOf(part) === ""
      : numberOf(part) === undefined || troubleOf(part) !== undefined;
  const active = parts.find((part) => part.id === chosen) ?? parts.find(open) ?? parts.at(-1);
  return {
    parts,
    active,
    tried,
    textOf,
    shownOf: (part: Item) =>
      part.reading ? typedText(textOf(part), expectedOf(part)) : { start: "", rest: textOf(part) },
    numberOf,
    troubleOf,
    decimals: active?.reading?.decimals ?? 0,
    negative: (active?.reading?.plausible?.min ?? 0) < 0,
    /** Parts still to be entered after the active one. */
    left: parts.filter((part) => part !== active && open(part)),
    choose: (part: Item) => setChosen(part.id),
    /** Selects a choice and moves to the next part. */
    pick: (part: Item, value: string) => {
      setChosen(undefined);
      setTried(undefined);
      change((before) => ({ ...before, [part.id]: value }));
    },
    onKey: (key: string) => {
      if (!active?.reading) return;
      const bounds = {
        decimals: active.reading.decimals,
        negative: (active.reading.plausible?.min ?? 0) < 0,
      };
      // The active number stays active, so that another digit does not go to the next part.
      setChosen(active.id);
      setTried(undefined);
      if (key === "back" && textOf(active) === "") setWhole(active.id);
      change((before) => ({ ...before, [active.id]: pressKey(before[active.id] ?? "", key, bounds) }));
    },
    /** Moves to the next missing number; true if there is none. */
    next: (): boolean => {
      if (active && open(active)) {
        setTried(active.id);
        return false;
      }
      const missing = parts.find(open);
      setChosen(missing?.id);
      return missing === undefined;
    },
    values: () =>
      Object.fromEntries(
        parts.map((part) => [part.id, part.kind === "choice" ? textOf(part) : (numberOf(part) ?? 0)]),
      ),
    drop: () => {
      change(() => ({}));
      drop();
    },
  };
}

export type CardNumbers = ReturnType<typeof useCardNumbers>;
