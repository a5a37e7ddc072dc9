import { PHASE_NAME } from "@cravix/contract/client";
import { foldLoads } from "@cravix/core/checklist/fold-loads";
import { phaseOf } from "@cravix/core/checklist/list/list-places";
import { currentItem, phaseProgress } from "@cravix/core/checklist/next-item";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { formatDistanceToNowStrict } from "date-fns/formatDistanceToNowStrict";
import { type Href, router } from "expo-router";
import { useEffect, useState } from "react";
import { View } from "react-native";
import { eventsOfPreflight, listOf } from "../../device/log/event-log";
import type { OpenPreflight } from "../../store/state/preflight-slice";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";

/** An unfinished preflight, with its next item. */
function Unfinished({ open }: { open: OpenPreflight }) {
  const [where, setWhere] = useState("");
  const [stillOn, setStillOn] = useState("");
  useEffect(() => {
    void (async () => {
      const events = await eventsOfPreflight(open.preflightId);
      const state = foldPreflight(open.preflightId, events);
      const list = state.listHash && (await listOf(state.listHash));
      if (!list) return;
      const { on, onSince } = foldLoads(list, state, Date.now());
      if (onSince !== undefined)
        setStillOn(
          `Still switched on after ${formatDistanceToNowStrict(onSince)}: ${on.map((load) => load.name).join(", ")}.`,
        );
      const item = currentItem(list, state);
      const phase = item && phaseProgress(list, state).find((p) => p.phase === phaseOf(list, item));
      setWhere(
        item && phase
          ? `${PHASE_NAME[phase.phase]} ${phase.answered}/${phase.total}, next: ${item.title}`
          : "All items answered: sign the verdict",
      );
    })();
  }, [open.preflightId]);
  return (
    <View className="rounded-xl border-2 border-ink bg-chock px-3 py-2">
      <Text className="font-strong text-on-chock">Unfinished preflight</Text>
      <Text className="text-on-chock">{where}</Text>
      {stillOn !== "" && <Text className="font-strong text-on-chock">{stillOn}</Text>}
    </View>
  );
}

/** Unfinished work on this device: a preflight, or a flight without after-flight checks. */
export function UnfinishedWork({
  unfinished,
  flying,
}: {
  unfinished: OpenPreflight | undefined;
  flying: OpenPreflight | undefined;
}) {
  return (
    <>
      {unfinished && <Unfinished open={unfinished} />}
      {flying && (
        <Button
          className="border-ink bg-stone"
          textClassName="text-base"
          onPress={() => router.push(`/preflight/${flying.preflightId}/after` as Href)}
        >
          {`${flying.registration} is flying: do the after-flight checks when back`}
        </Button>
      )}
    </>
  );
}
