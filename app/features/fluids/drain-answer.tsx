import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { PAPER_TESTS, SAMPLE_LOOKS } from "@cravix/core/fuel/drain/fuel-sample";
import { FUEL_COLOURS, fuelGrade } from "@cravix/core/fuel/grade/fuel-grades";
import { capital } from "@cravix/core/units/format";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import type { Drain } from "./use-drain";

const WORDS: Record<string, string> = {
  water: "Water",
  cloudy: "Cloudy",
  grit: "Grit",
  "wrong colour": "Wrong colour",
  "kerosene smell": "Kerosene smell",
  colourless: "Colourless",
};
const PAPER_WORDS: Record<string, string> = {
  "dries away": "Dries away",
  "greasy ring": "Greasy ring",
  "stays wet": "Stays wet",
};

/** Answer buttons at a drain: clean takes one tap, anything else two, followed by the next step. */
export function DrainAnswer({ item, drain }: { item: Item; drain: Drain }) {
  const { advice, asking, approved, draining } = drain;
  if (asking.more === "paper" || advice.step === "paper")
    return (
      <Row
        title="Smell it, then put a drop on white paper. What happens?"
        options={PAPER_TESTS.map((paper) => ({
          words: PAPER_WORDS[paper] ?? paper,
          onPress: () => drain.give({ look: "colourless", colour: "colourless", paper }),
        }))}
      />
    );
  if (asking.more === "colour") {
    const usual = fuelGrade(approved[0] ?? "")?.colours[0];
    return (
      <Row
        title="Which colour?"
        options={[
          ...FUEL_COLOURS.filter((colour) => colour !== usual && colour !== "colourless").map((colour) => ({
            words: capital(colour),
            onPress: () => drain.give({ look: "wrong colour", colour }),
          })),
          { words: "None of these", onPress: () => drain.give({ look: "wrong colour" }) },
        ]}
      />
    );
  }
  const asksAgain = advice.step === "again" && !draining;
  const offered = advice.step === "take" || draining || advice.step === "clean";
  return (
    <View className="gap-2">
      {offered && (
        <View className="flex-row flex-wrap gap-2">
          {SAMPLE_LOOKS.filter((look) => look !== "clean").map((look) => (
            <Button
              key={look}
              tone="deck"
              className="min-w-[30%] flex-1 px-1"
              textClassName="text-base"
              testID={`look-${look.replace(" ", "-")}`}
              onPress={() => drain.look(look)}
            >
              {WORDS[look] ?? look}
            </Button>
          ))}
        </View>
      )}
      <Button
        tone="primary"
        className="min-h-20"
        textClassName="text-2xl"
        testID="primary"
        disabled={!drain.primary}
        onPress={() => drain.primary?.()}
      >
        {asksAgain
          ? "Drain again"
          : advice.step === "rock"
            ? "Wings rocked, waited: drain all again"
            : advice.step === "maintenance"
              ? "Log it: do not fly"
              : advice.step === "clean"
                ? "Accept this sample"
                : (item.done ?? "Clean")}
      </Button>
    </View>
  );
}

function Row({ title, options }: { title: string; options: { words: string; onPress: () => void }[] }) {
  return (
    <View className="gap-2">
      <Text className="font-mid text-deck-ink">{title}</Text>
      <View className="flex-row flex-wrap gap-2">
        {options.map(({ words, onPress }) => (
          <Button
            key={words}
            tone="deck"
            className="min-h-16 min-w-[30%] flex-1"
            textClassName="text-base"
            onPress={onPress}
          >
            {words}
          </Button>
        ))}
      </View>
    </View>
  );
}

/** Draining time: after about a minute without a clean sample it is for maintenance. */
export function DrainClock({ since, before }: { since: number; before: number }) {
  const [now, setNow] = useState(Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, []);
  const seconds = Math.max(0, Math.floor((now - since) / 1000));
  return (
    <Text className="font-strong text-2xl" aria-live="off" testID="drain-clock">
      {`${seconds} s${before > 0 ? `, ${Math.round(before + seconds)} s in total` : ""}`}
    </Text>
  );
}
