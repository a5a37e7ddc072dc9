import { useEffect, useState } from "react";
import { View } from "react-native";
import { allEvents, sendRefusedAgain } from "../../device/log/event-log";
import { saveTextFile } from "../../device/platform/pick-file";
import { roomLeft } from "../../device/storage";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { sendAgain } from "../../store/state/sync-actions";
import { correctClock } from "../../store/sync/correct-clock";
import { Alert } from "../../ui/alert";
import { dayAndClockText } from "../../ui/day-and-time";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { InstallHint, NightSwitch, STANDSTILL } from "../shell";

const WORDS: Record<string, string> = {
  "preflight.started": "Preflight started",
  "item.answered": "An answer",
  "item.postponed": "An item postponed",
  "item.visited": "An item opened",
  "item.undone": "An answer undone",
  "reading.taken": "A reading",
  "discrepancy.opened": "A discrepancy",
  "discrepancy.observed": "A known discrepancy checked again",
  "discrepancy.withdrawn": "A discrepancy withdrawn",
  "discrepancy.closed": "A sign-off",
  interrupted: "An interruption",
  resumed: "Resumed after an interruption",
  "verdict.signed": "A signed verdict",
};

/** Unsent data on this device, and device settings. */
export function DeviceScreen() {
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { toSend, server } = useAppSelector((state) => state.sync);
  const unkept = useAppSelector((state) => state.preflight.unkept);
  const [room, setRoom] = useState<Awaited<ReturnType<typeof roomLeft>>>();
  useEffect(() => void roomLeft().then(setRoom), []);
  return (
    <Screen
      back="/people"
      actions={
        <View className="flex-row gap-3">
          <Button
            tone="deck"
            className="min-h-16 flex-1"
            textClassName="text-base"
            onPress={async () =>
              saveTextFile(
                "cravix-events.json",
                // Data not stored yet is included in the export.
                JSON.stringify({ events: [...(await allEvents().catch(() => [])), ...unkept] }, null, 1),
              )
            }
          >
            Save a copy
          </Button>
          <Button
            tone="primary"
            className="min-h-16 flex-[1.4]"
            onPress={async () => {
              await sendRefusedAgain();
              dispatch(sendAgain());
            }}
          >
            Send again now
          </Button>
        </View>
      }
    >
      <PageHead>This device</PageHead>
      <View className={wide ? "mt-3 flex-row gap-10" : "mt-2 gap-4"}>
        <View className={wide ? "flex-[1.3] gap-3" : "gap-3"}>
          <Text className="font-strong text-xl" testID="to-send">
            {toSend === 0 ? "Nothing to send" : `${toSend} to send`}
          </Text>
          <Text>
            {server === "not reached"
              ? "The server cannot be reached. Everything you answer is saved on this device and sent automatically when the connection is back."
              : server === "sign in" || server === "not allowed" || server === "busy"
                ? `The server can be reached, but ${STANDSTILL[server]}. Until then everything stays on this device.`
                : "The server can be reached."}
          </Text>
          {unkept.length > 0 && (
            <Alert textClassName="font-strong">
              {`${unkept.length} not saved to this device's storage yet. Leave this page open and free some space, or save a copy.`}
            </Alert>
          )}
          <Early />
          <Refused />
        </View>
        <View className={wide ? "flex-1 gap-4" : "gap-4"}>
          {room && (
            <View className="gap-1">
              <Heading className="text-lg">Storage</Heading>
              <Text>
                {room.persisted
                  ? "This browser keeps what is saved here until you delete it."
                  : "This browser may delete saved data when the device runs short of space. Send it soon."}
                {room.leftMb !== undefined && room.leftMb < 500 ? ` ${room.leftMb} MB are left.` : ""}
              </Text>
            </View>
          )}
          <View className="gap-1">
            <Heading className="text-lg">Day and night colours</Heading>
            <View className="flex-row">
              <NightSwitch />
            </View>
          </View>
          <View className="gap-1">
            <Heading className="text-lg">Add to home screen</Heading>
            <InstallHint />
          </View>
        </View>
      </View>
    </Screen>
  );
}

/** Offers to correct times recorded while this device's clock was ahead. */
function Early() {
  const dispatch = useAppDispatch();
  const early = useAppSelector((state) => state.sync.refused).filter(({ field }) => field === "at").length;
  if (early === 0) return null;
  return (
    <View className="gap-2 rounded-xl border-2 border-ink px-3 py-3">
      <Text className="font-strong">{`${early} entries are dated in the future: this device's clock was ahead.`}</Text>
      <Text className="text-sm">
        They can be sent now with the correct time. The original clock time stays on record.
      </Text>
      <Button textClassName="text-base" onPress={() => dispatch(correctClock())} testID="correct-clock">
        Send with the correct time
      </Button>
    </View>
  );
}

function Refused() {
  const refused = useAppSelector((state) => state.sync.refused);
  if (refused.length === 0) return null;
  return (
    <View className="gap-2">
      <Heading className="text-lg text-clay">Rejected by the server: {refused.length}</Heading>
      <Text className="text-sm text-voice">
        They stay on this device. Correct what is named below, then send again, or save a copy.
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
  );
}
