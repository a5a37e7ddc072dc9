import { router } from "expo-router";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { allEvents, sendRefusedAgain } from "../../device/log/event-log";
import { saveTextFile } from "../../device/senses/pick-file";
import { roomLeft } from "../../device/storage";
import { useAppDispatch, useAppSelector } from "../../store/hooks";
import { correctClock } from "../../store/sync/correct-clock";
import { sendAgain } from "../../store/sync/sync-actions";
import { Alert } from "../../ui/alert";
import { dayAndClockText } from "../../ui/day-and-time";
import { Button } from "../../ui/input/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { STANDSTILL } from "./kept-mark";

const WORDS: Record<string, string> = {
  "preflight.started": "Begin of a walk",
  "item.answered": "An answer",
  "item.postponed": "Put off for later",
  "item.visited": "Went to an item",
  "item.undone": "An undo",
  "reading.taken": "A reading",
  "discrepancy.opened": "Something found",
  "discrepancy.observed": "A known thing measured again",
  "discrepancy.withdrawn": "A finding withdrawn",
  "discrepancy.closed": "A sign-off",
  interrupted: "An interruption",
  resumed: "Going on",
  "verdict.signed": "A signed verdict",
};

/** What is on this device and not with the group yet: nothing is dropped without a word. */
export function KeptScreen() {
  const dispatch = useAppDispatch();
  const { toSend, refused, server } = useAppSelector((state) => state.sync);
  const unkept = useAppSelector((state) => state.preflight.unkept);
  const early = refused.filter(({ field }) => field === "at").length;
  const [room, setRoom] = useState<Awaited<ReturnType<typeof roomLeft>>>();
  useEffect(() => void roomLeft().then(setRoom), []);
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
                saveTextFile(
                  "cravix-events.json",
                  // What the disk did not take is in the copy all the same.
                  JSON.stringify({ events: [...(await allEvents().catch(() => [])), ...unkept] }, null, 1),
                )
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
          : server === "sign in" || server === "not allowed" || server === "busy"
            ? `The server can be reached, but ${STANDSTILL[server]}. Everything stays here until then.`
            : "The server can be reached."}
      </Text>
      {unkept.length > 0 && (
        <Alert className="mt-2" textClassName="font-strong">
          {`${unkept.length} not on this device's disk yet. Leave this page open, free some space, or save a copy.`}
        </Alert>
      )}
      {room && (
        <Text className="mt-2 text-sm text-voice">
          {room.persisted
            ? "This browser keeps what is here until you delete it."
            : "This browser may clear what is here when the device runs short of space: send it soon."}
          {room.leftMb !== undefined && room.leftMb < 500 ? ` ${room.leftMb} MB are left.` : ""}
        </Text>
      )}
      {early > 0 && (
        <View className="mt-4 gap-2 rounded-xl border-2 border-ink px-3 py-3">
          <Text className="font-strong">{`${early} dated in the future: this device's clock was ahead.`}</Text>
          <Text className="text-sm">
            With the right time it can be sent now. What the clock said stays on record.
          </Text>
          <Button textClassName="text-base" onPress={() => dispatch(correctClock())} testID="correct-clock">
            Send with the right time
          </Button>
        </View>
      )}
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
                {WORDS[r.type] ?? r.type}, {dayAndClockText(r.at)}
              </Text>
              <Text>{r.reason}</Text>
            </View>
          ))}
        </View>
      )}
    </Screen>
  );
}
