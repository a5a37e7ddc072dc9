import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { readNote, saveNote } from "../../device/log/notes";
import { canSpeak, speak, stopSpeaking } from "../../device/platform/speech";
import { useCrew } from "../../store/server/server-state";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";

/** With two people: one reads the item, the other answers with what they see; shows the expected answer. */
export function PairBar({
  preflight,
  item,
  parts,
  acts,
}: {
  preflight: LoadedPreflight;
  item: Item;
  /** Parts of a card, each read out and answered. */
  parts?: readonly Item[] | undefined;
  acts: Acts;
}) {
  const line = (parts ?? [item]).map(({ title }) => title).join(". ");
  const [second] = preflight.state.joined;
  const crew = useCrew();
  const [aloud, setAloud] = useState(false);
  useEffect(() => {
    readNote<boolean>("read aloud").then(
      (kept) => setAloud(kept ?? false),
      () => undefined,
    );
  }, []);
  const here = second !== undefined;
  useEffect(() => {
    if (here && aloud) speak(line);
    return stopSpeaking;
  }, [here, aloud, line]);
  if (!second) return null;
  const name = crew.find((member) => member.id === second)?.name.split(" ")[0] ?? second;
  return (
    <View testID="pair" className="flex-row items-center gap-2 rounded-lg bg-stone px-3">
      <View className="min-w-0 flex-1 py-1">
        <Text className="text-sm text-voice">{`Read it aloud. ${name} answers:`}</Text>
        <Text className="font-strong">{`“${(parts ?? [item]).map(answerToHear).join("; ")}”`}</Text>
      </View>
      {canSpeak() && (
        <Button
          tone="bare"
          className="px-1"
          textClassName="text-sm"
          pressed={aloud}
          onPress={() => {
            setAloud(!aloud);
            void saveNote("read aloud", !aloud);
          }}
        >
          {aloud ? "Voice off" : "Voice on"}
        </Button>
      )}
      <Button tone="bare" className="px-1" textClassName="text-sm" onPress={() => acts.leave(second)}>
        {`${name} left`}
      </Button>
    </View>
  );
}

/** A value rather than "checked", because a value proves a look. */
function answerToHear(item: Item): string {
  if (item.kind === "count") return `the number, ${item.expected} expected`;
  if (item.kind === "measure") return `the number, in ${item.reading?.unit}`;
  if (item.kind === "confirm") return item.confirm?.ask ?? "what the label says";
  if (item.kind === "observe") return "grown, the same, or gone; and the measurement";
  if (item.kind === "choice") return "which one";
  return item.done ?? item.good;
}
