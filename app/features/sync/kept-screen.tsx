import { format } from "date-fns/format";
import { router } from "expo-router";
import { View } from "react-native";
import { allEvents, sendRefusedAgain } from "../../device/event-log";
import { saveTextFile } from "../../device/pick-file";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { sendAgain } from "../../store/sync-actions";
import { Button } from "../../ui/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";

const WORDS: Record<string, string> = {
  "preflight.started": "Begin of a walk",
  "item.answered": "An answer",
  "item.deferred": "Put off for later",
  "item.visited": "Went to an item",
  "item.undone": "An undo",
  "reading.taken": "A reading",
  "discrepancy.opened": "Something found",
  "discrepancy.observed": "A known thing measured again",
  "discrepancy.closed": "A sign-off",
  interrupted: "An interruption",
  resumed: "Going on",
  "verdict.signed": "A signed verdict",
};

/** What is on this device and not with the group yet: nothing is dropped without a word. */
export function KeptScreen() {
  const dispatch = useAppDispatch();
  const { toSend, refused, server } = useAppSelector((state) => state.sync);
  return (
    <Screen
      actions={
        <>
          <Button
            tone="primary"
            className="min-h-16"
            onPress={async () => {
              await sendRefusedAgain();
              dispatch(sendAgain());
            }}
          >
            Send again now
          </Button>
          <View className="flex-row gap-3">
            <Button
              tone="deck"
              className="flex-1"
              onPress={async () =>
                saveTextFile("cravix-events.json", JSON.stringify({ events: await allEvents() }, null, 1))
              }
            >
              Save a copy
            </Button>
            <Button
              tone="deck"
              className="flex-1"
              onPress={() => (router.canGoBack() ? router.back() : router.replace("/"))}
            >
              Back
            </Button>
          </View>
        </>
      }
    >
      <Heading level={1} className="text-2xl">
        On this device
      </Heading>
      <Text className="mt-2">
        {server === "not reached"
          ? "The server cannot be reached. Everything you answer is kept here and goes out by itself when it can."
          : "The server can be reached."}
      </Text>
      <Text className="mt-2 font-strong text-lg" testID="to-send">
        {toSend === 0 ? "Nothing waits to be sent" : `${toSend} wait to be sent`}
      </Text>
      {refused.length > 0 && (
        <View className="mt-4 gap-2">
          <Heading className="text-lg text-clay">Not taken by the server: {refused.length}</Heading>
          <Text className="text-sm text-voice">
            They stay here. Put right what is named, then send again; or save a copy.
          </Text>
          {refused.map((r) => (
            <View key={r.id} className="rounded-xl bg-stone px-3 py-2">
              <Text className="font-mid">
                {WORDS[r.type] ?? r.type}, {format(new Date(r.at), "d MMM HH:mm")}
              </Text>
              <Text>{r.reason}</Text>
            </View>
          ))}
        </View>
      )}
    </Screen>
  );
}
