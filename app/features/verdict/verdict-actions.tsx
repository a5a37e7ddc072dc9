import type { VerdictResult } from "@cravix/core/verdict/verdict";
import { router } from "expo-router";
import { View } from "react-native";
import { useCrew } from "../../store/server/server-state";
import { Button } from "../../ui/input/button";
import { Text } from "../../ui/text";
import type { FoldedPreflight } from "../open-preflight";

/** What can be done with a verdict: sign it, continue the preflight, or, once signed, go on to what follows. */
export function VerdictActions({
  folded: { list, state },
  result,
  asked,
  mine,
  onSign,
  onGo,
}: {
  folded: FoldedPreflight;
  result: VerdictResult;
  /** True if somebody was asked. */
  asked: boolean;
  /** True for the pilot who started the preflight. */
  mine: boolean;
  onSign: (decision: "fly" | "not flying") => void;
  onGo: (itemId: string) => void;
}) {
  if (state.signed) return <AfterSigning list={list} state={state} />;
  if (!mine) return <NotMine pilotId={state.crewId} />;
  const [next] = result.unanswered;
  return (
    <View className="flex-row gap-3">
      <Button tone="deck" className="min-h-24 flex-1" onPress={() => onSign("not flying")}>
        Sign: not flying
      </Button>
      {mayFly(result, asked) ? (
        <Button
          tone="primary"
          className="min-h-24 flex-[1.5]"
          textClassName="text-xl"
          onPress={() => onSign("fly")}
          testID="primary"
        >
          {result.verdict === "ask first" ? "I asked: accept the aircraft" : "Accept the aircraft"}
        </Button>
      ) : next ? (
        <Button
          tone="primary"
          className="min-h-24 flex-[1.5]"
          textClassName="text-xl"
          onPress={() => onGo(next.id)}
          testID="primary"
        >
          {`Continue: ${result.unanswered.length} items open`}
        </Button>
      ) : null}
    </View>
  );
}

function mayFly({ verdict, unanswered, outstanding }: VerdictResult, asked: boolean): boolean {
  if (unanswered.length > 0 || outstanding.length > 0) return false;
  return verdict === "go" || verdict === "go with notes" || (verdict === "ask first" && asked);
}

function AfterSigning({ list, state }: Pick<FoldedPreflight, "list" | "state">) {
  const flying = state.signed?.decision === "fly";
  return (
    <View className="gap-2">
      {flying && list.lineUp && (
        <Button tone="deck" onPress={() => router.replace(`/preflight/${state.id}/line-up`)}>
          Line-up check
        </Button>
      )}
      {flying && list.after && (
        <Button tone="deck" onPress={() => router.replace(`/preflight/${state.id}/after`)}>
          After-flight checks
        </Button>
      )}
      <Button
        tone="primary"
        className="min-h-20"
        textClassName="text-xl"
        onPress={() => router.replace("/")}
        testID="primary"
      >
        Go to Aircraft
      </Button>
    </View>
  );
}

function NotMine({ pilotId }: { pilotId: string | undefined }) {
  const pilot = useCrew().find((member) => member.id === pilotId)?.name ?? pilotId;
  return (
    <View className="gap-2">
      <Text className="text-deck-ink" testID="not-my-flight">
        {pilot} started this preflight and must sign it. To sign, select {pilot} on the Aircraft page.
      </Text>
      <Button tone="deck" className="min-h-16" onPress={() => router.replace("/")}>
        Go to Aircraft
      </Button>
    </View>
  );
}
