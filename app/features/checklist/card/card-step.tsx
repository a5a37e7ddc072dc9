import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { Card } from "@cravix/core/cards/card-of";
import { useState } from "react";
import { useShortcuts } from "../../../ui/input/use-shortcuts";
import { useWide } from "../../../ui/use-wide";
import { type Acts, FoundStep, type LoadedPreflight } from "../../open-preflight";
import { StepFrame } from "../step-frame";
import { CardActions } from "./card-actions";
import { CardParts } from "./card-parts";
import { useCardNumbers } from "./use-card-numbers";

/** Maximum parts with reasons on a wide screen. */
const ROOM_FOR_WHY = 3;

const QUESTION = {
  found: "Which item has the discrepancy?",
  missed: "What was missed, and is done now?",
} as const;

interface Shown {
  cardId: string;
  why?: boolean;
  /** Reason for choosing a part: a problem, or one missed in the flow. */
  asking?: keyof typeof QUESTION;
  found?: Item;
}

interface CardStepProps {
  preflight: LoadedPreflight;
  acts: Acts;
  item: Item;
  card: Card;
}

/** A card of several parts: each named, one answer for all, and a problem logged at one part. */
export function CardStep({ preflight, acts, item, card }: CardStepProps) {
  const wide = useWide();
  const [shown, setShown] = useState<Shown>({ cardId: card.id });
  // State of another card is ignored.
  const { why = false, asking, found } = shown.cardId === card.id ? shown : {};
  const set = (part: Omit<Shown, "cardId">) => setShown({ cardId: card.id, ...part });
  const numbers = useCardNumbers(preflight, card);
  const confirm = () => {
    if (!numbers.next()) return;
    acts.cardChecked(card, numbers.values());
    numbers.drop();
  };
  const flowed = preflight.state.flowed[item.station] !== undefined;
  const choose = (part: Item) => {
    if (asking === "missed") {
      acts.checked(part, undefined, true);
      set({});
    } else if (part.kind === "sample") {
      // Samples are answered at their drain, since the next step depends on them.
      acts.visit(part.id);
      set({});
    } else set({ found: part });
  };
  const keyed = (keys: readonly string[], act: (key: string) => void) =>
    Object.fromEntries(keys.map((key) => [key, () => act(key)]));
  useShortcuts(
    found
      ? {}
      : asking
        ? {
            Escape: () => set({}),
            ...keyed([..."123456789"], (key) => {
              const part = card.parts[Number(key) - 1];
              if (part) choose(part);
            }),
          }
        : {
            u: acts.undo,
            w: () => set({ why: !why }),
            f: () => set({ asking: "found" }),
            ...(flowed && { m: () => set({ asking: "missed" }) }),
            l: () => acts.cardLater(card),
            i: () => acts.interrupt(),
            Enter: confirm,
            ...(numbers.active?.kind === "choice" &&
              keyed([..."123456789"], (key) => {
                const choice = numbers.active?.choices?.[Number(key) - 1];
                if (numbers.active && choice) numbers.pick(numbers.active, choice.value);
              })),
            ...(numbers.active?.reading && {
              ...keyed([..."0123456789."], numbers.onKey),
              "-": () => numbers.onKey("sign"),
              Backspace: () => numbers.onKey("back"),
            }),
          },
  );
  if (found)
    return (
      <FoundStep
        walkId={preflight.state.id}
        item={found}
        preset={undefined}
        onBack={() => set({})}
        acts={acts}
      />
    );
  return (
    <StepFrame
      preflight={preflight}
      acts={acts}
      item={item}
      parts={card.parts}
      roomFor={numbers.parts.length > 0 || card.parts.length > 5 ? "the answer" : "the place"}
      body={
        <CardParts
          preflight={preflight}
          card={card}
          why={why || (wide && numbers.parts.length === 0 && card.parts.length <= ROOM_FOR_WHY)}
          numbers={numbers}
          {...(asking && { onChoose: choose, question: QUESTION[asking] })}
        />
      }
      actions={
        <CardActions
          card={card}
          acts={acts}
          numbers={numbers}
          wide={wide}
          why={why}
          asking={asking !== undefined}
          flowed={flowed}
          onWhy={() => set({ why: !why })}
          onAsk={(next) => set(next ? { asking: next } : {})}
          onConfirm={confirm}
        />
      }
    />
  );
}
