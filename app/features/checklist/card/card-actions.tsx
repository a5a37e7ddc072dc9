import type { Card } from "@cravix/core/cards/card-of";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { Keypad } from "../../../ui/input/keypad";
import type { Acts } from "../../open-preflight";
import type { CardNumbers } from "./use-card-numbers";

interface CardActionsProps {
  card: Card;
  acts: Acts;
  numbers: CardNumbers;
  wide: boolean;
  why: boolean;
  asking: boolean;
  /** The station was done from memory, so something may have been missed. */
  flowed: boolean;
  onWhy: () => void;
  onAsk: (asking: "found" | "missed" | undefined) => void;
  onConfirm: () => void;
}

/** Answer area of a card: one answer for all parts, or a problem at one of them. */
export function CardActions(props: CardActionsProps) {
  const { card, acts, numbers, wide, why, asking, flowed, onWhy, onAsk, onConfirm } = props;
  const small = (words: string, key: string, onPress: () => void, more: object = {}) => (
    <Button
      tone="bare-deck"
      textClassName="text-sm"
      className="px-1"
      hint={wide ? key : undefined}
      onPress={onPress}
      {...more}
    >
      {words}
    </Button>
  );
  if (asking)
    return (
      <View className="bg-deck px-4 py-3">
        <Button tone="deck" className="min-h-20" onPress={() => onAsk(undefined)}>
          Back, nothing found
        </Button>
      </View>
    );
  const typed = numbers.parts.length > 0;
  const primary = numbers.left[0]
    ? `Next: ${numbers.left[0].part ?? numbers.left[0].title}`
    : (card.done ?? (typed ? "Confirm readings" : "All checked"));
  return (
    <View className="gap-2 bg-deck px-4 pb-1 pt-3">
      {numbers.active?.reading && (
        <Keypad decimals={numbers.decimals} negative={numbers.negative} onKey={numbers.onKey} />
      )}
      <View className="flex-row gap-3">
        {!typed && (
          <Button
            tone="deck"
            className="min-h-28 flex-1"
            hint={wide ? "F" : undefined}
            testID="found-on-card"
            onPress={() => onAsk("found")}
          >
            Found something
          </Button>
        )}
        <Button
          tone="primary"
          className={typed ? "min-h-16 flex-1" : "min-h-28 flex-[1.7]"}
          textClassName={typed ? "text-xl" : "text-2xl"}
          hint={wide ? "Enter" : undefined}
          testID="primary"
          onPress={onConfirm}
        >
          {primary}
        </Button>
      </View>
      <View className="flex-row justify-between">
        {small("Undo", "U", acts.undo, { disabled: !acts.canUndo })}
        {typed && small("Found something", "F", () => onAsk("found"), { testID: "found-on-card" })}
        {flowed && small("Missed one", "M", () => onAsk("missed"), { testID: "missed-on-card" })}
        {small("Why", "W", onWhy, { pressed: why })}
        {small("Postpone", "L", () => acts.cardLater(card))}
        {small("Interrupted", "I", () => acts.interrupt())}
      </View>
    </View>
  );
}
