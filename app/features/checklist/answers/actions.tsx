import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { partOf } from "@cravix/core/aircraft/part-of";
import { View } from "react-native";
import { Button } from "../../../ui/input/button";
import { Keypad } from "../../../ui/input/keypad";
import { Text } from "../../../ui/text";
import { type Drain, DrainAnswer } from "../../fluids";
import type { Acts, LoadedPreflight } from "../../open-preflight";
import { ConfirmAnswer } from "./confirm-answer";
import { HoldAnswer } from "./hold-answer";
import type { Measure } from "./measure-panel";
import { PullAnswer } from "./pull-answer";

/** Kinds with a single "done" answer, which a flow from memory can miss. */
const CATCHABLE = new Set(["look", "feel", "set", "remove", "sample"]);

interface ActionsProps {
  preflight: LoadedPreflight;
  item: Item;
  acts: Acts;
  measure: Measure;
  drain: Drain;
  wide: boolean;
  why: boolean;
  onWhy: () => void;
  onFound: (preset?: string) => void;
}

/** Answer area: the main answer, a problem, and four alternatives. */
export function Actions(props: ActionsProps) {
  const { preflight, item, acts, wide, why, onWhy, onFound } = props;
  const hint = (key: string) => (wide ? key : undefined);
  return (
    <View className="gap-2 bg-deck px-4 pb-1 pt-3">
      <Answer {...props} hint={hint} />
      <View className="flex-row justify-between">
        <Button
          tone="bare-deck"
          textClassName="text-sm"
          className="px-1"
          hint={hint("U")}
          disabled={!acts.canUndo}
          onPress={acts.undo}
        >
          Undo
        </Button>
        {(item.kind === "measure" || item.kind === "sample") && (
          <Button
            tone="bare-deck"
            textClassName="text-sm"
            className="px-1"
            hint={hint("F")}
            onPress={() => onFound()}
          >
            Found something
          </Button>
        )}
        {CATCHABLE.has(item.kind) && preflight.state.flowed[item.station] && (
          <Button
            tone="bare-deck"
            textClassName="text-sm"
            className="px-1"
            hint={hint("M")}
            onPress={() => acts.checked(item, undefined, true)}
          >
            Missed, done now
          </Button>
        )}
        <Button
          tone="bare-deck"
          textClassName="text-sm"
          className="px-1"
          hint={hint("W")}
          pressed={why}
          onPress={onWhy}
        >
          Why
        </Button>
        <Button
          tone="bare-deck"
          textClassName="text-sm"
          className="px-1"
          hint={hint("L")}
          onPress={() => acts.later(item)}
        >
          Postpone
        </Button>
        <Button
          tone="bare-deck"
          textClassName="text-sm"
          className="px-1"
          hint={hint("I")}
          onPress={() => acts.interrupt()}
        >
          Interrupted
        </Button>
      </View>
    </View>
  );
}

function Answer({
  preflight,
  item,
  acts,
  measure,
  drain,
  onFound,
  hint,
}: ActionsProps & { hint: (key: string) => string | undefined }) {
  if (item.kind === "measure")
    return (
      <>
        <Keypad decimals={measure.decimals} negative={measure.negative} onKey={measure.onKey} />
        <Button
          tone="primary"
          className="min-h-16"
          textClassName="text-xl"
          hint={hint("Enter")}
          onPress={measure.done}
          testID="primary"
        >
          {measure.value === undefined ? "Enter the reading" : "Confirm reading"}
        </Button>
      </>
    );
  if (item.kind === "time" && item.seconds)
    return (
      <HoldAnswer
        key={item.id}
        seconds={item.seconds}
        done={item.done ?? "Held"}
        onDone={() => acts.checked(item)}
        onFound={() => onFound()}
      />
    );
  if (item.kind === "confirm")
    return <ConfirmAnswer preflight={preflight} item={item} acts={acts} onFound={onFound} hint={hint} />;
  if (item.kind === "sample") return <DrainAnswer item={item} drain={drain} />;
  if (item.kind === "pull")
    return (
      <PullAnswer preflight={preflight} item={item} acts={acts} onFound={onFound} hint={hint("Enter")} />
    );
  if (item.kind === "count") return <CountAnswer item={item} acts={acts} onFound={onFound} />;
  if (item.kind === "choice")
    return (
      <View className="flex-row flex-wrap gap-2">
        {(item.choices ?? []).map((choice, i) => (
          <Button
            key={choice.value}
            tone="primary"
            className="min-h-24 min-w-20 flex-1"
            textClassName="text-2xl"
            hint={hint(String(i + 1))}
            onPress={() => acts.checked(item, choice.value)}
          >
            {choice.label}
          </Button>
        ))}
      </View>
    );
  if (item.kind === "observe")
    return (
      <View className="flex-row gap-2">
        <Button tone="deck" className="min-h-24 flex-1" hint={hint("G")} onPress={() => onFound("grown")}>
          Grown
        </Button>
        <Button
          tone="deck"
          className="min-h-24 flex-1"
          hint={hint("X")}
          onPress={() => acts.observed(item, "gone")}
        >
          Gone
        </Button>
        <Button
          tone="primary"
          className="min-h-24 flex-[1.6]"
          textClassName="text-2xl"
          hint={hint("Enter")}
          onPress={() => onFound("same")}
          testID="primary"
        >
          The same
        </Button>
      </View>
    );
  return (
    <View className="flex-row gap-3">
      <Button tone="deck" className="min-h-28 flex-1" hint={hint("F")} onPress={() => onFound()}>
        Found something
      </Button>
      <Button
        tone="primary"
        className="min-h-28 flex-[1.7]"
        textClassName="text-2xl"
        hint={hint("Enter")}
        onPress={() => acts.checked(item)}
        testID="primary"
      >
        {item.done ?? (item.kind === "remove" ? "Removed" : "Checked")}
      </Button>
    </View>
  );
}

/** The expected number is hidden, so that counting is necessary. */
function CountAnswer({ item, acts, onFound }: Pick<ActionsProps, "item" | "acts" | "onFound">) {
  const expected = item.expected ?? 1;
  const numbers = Array.from({ length: expected + 2 }, (_, i) => i).slice(Math.max(0, expected - 4));
  return (
    <View className="gap-2">
      <Text className="text-sm text-deck-ink">How many are serviceable?</Text>
      <View className="flex-row gap-2">
        {numbers.map((n) => (
          <Button
            key={n}
            tone="primary"
            className="min-h-20 flex-1 px-0"
            textClassName="text-2xl"
            testID={`count-${n}`}
            onPress={() =>
              n === expected
                ? acts.checked(item, String(n))
                : onFound(`${partOf(item)}: ${n} serviceable, ${expected} expected`)
            }
          >
            {String(n)}
          </Button>
        ))}
      </View>
    </View>
  );
}
