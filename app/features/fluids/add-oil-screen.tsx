import { formatNumber, formatQuantity, ONLY_ENGINE, whyNotAdd } from "@cravix/core";
import { router } from "expo-router";
import { useState } from "react";
import { View } from "react-native";
import { Button } from "../../ui/button";
import { Choice } from "../../ui/choice";
import { Caution } from "../../ui/judgement-card";
import { Screen } from "../../ui/screen";
import { Stepper } from "../../ui/stepper";
import { Heading, Text } from "../../ui/text";
import { useActs } from "../walk/use-acts";
import { useWalk } from "../walk/use-preflight";
import { type FoldedWalk, WalkFrame } from "../walk/walk-frame";

/** Oil that went in: which engine, which grade, how many containers; afterwards the stick is read again. */
export function AddOilScreen({ id }: { id: string }) {
  return <WalkFrame id={id}>{(folded) => <AddOil folded={folded} />}</WalkFrame>;
}

const SEALED = ["unopened", "opened before"] as const;

function AddOil({ folded }: { folded: FoldedWalk }) {
  const walk = useWalk(folded);
  const acts = useActs(walk);
  const { oil: profile, engines } = walk.list.type;
  const container = profile?.containerQt ?? 1;
  const [engine, setEngine] = useState(engines?.[0]);
  const own = walk.judged.oil?.[engine ?? ONLY_ENGINE];
  const [count, setCount] = useState(Math.max(1, own?.addContainers ?? 1));
  const [grade, setGrade] = useState(profile?.grades?.[0]);
  const [other, setOther] = useState(false);
  const [sealed, setSealed] = useState<(typeof SEALED)[number]>("unopened");
  const qt = count * container;
  const given = { qt, sealed: sealed === "unopened", ...(other ? { grade: "another" } : grade && { grade }) };
  const against = whyNotAdd(given, profile, own?.levelQt);
  const back = () => router.replace(`/preflight/${walk.state.id}`);
  const log = () => {
    acts.oilAdded({ ...given, ...(engine && { engine }) });
    back();
  };
  return (
    <Screen
      actions={
        <View className="flex-row gap-3">
          <Button tone="deck" className="min-h-20 flex-1" onPress={back}>
            Back
          </Button>
          <Button
            tone="primary"
            className="min-h-20 flex-[1.7]"
            textClassName="text-xl"
            testID="primary"
            onPress={log}
          >
            It went in: log it
          </Button>
        </View>
      }
    >
      <Heading level={1} className="text-3xl">
        Oil was added
      </Heading>
      <Text className="text-voice">
        {own
          ? `The stick said ${formatQuantity({ value: own.levelQt, unit: "US qt" })}. ${own.judgement.action ?? ""}`
          : "The stick was not read yet: read it first, and afterwards again."}
      </Text>
      <View className="mt-3 gap-5">
        {engines && <Choice title="Which engine" options={engines} value={engine} onChange={setEngine} />}
        <View className="gap-1.5">
          <Heading className="text-lg">How many containers</Heading>
          <Stepper
            text={`${count} × ${formatNumber(container, container % 1 === 0 ? 0 : 2)} qt`}
            step={1}
            unit="containers"
            testID="containers"
            onStep={(by) => setCount(Math.min(12, Math.max(1, count + by)))}
          />
        </View>
        {profile?.grades && (
          <Choice
            title="What stands on the bottle"
            options={[...profile.grades, "another grade"]}
            value={other ? "another grade" : grade}
            onChange={(chosen) => {
              setOther(chosen === "another grade");
              if (chosen !== "another grade") setGrade(chosen);
            }}
          />
        )}
        <Choice title="The container was" options={SEALED} value={sealed} onChange={setSealed} />
        {against && (
          <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="trouble">
            <Text className="font-mid text-clay">
              {`${other ? `Not on this engine's list: ${profile?.grades?.join(", ")}.` : against} Do not add it. If it is in already, log it: it will be asked about.`}
            </Text>
          </View>
        )}
        <Caution>
          Only the right grade, from an unopened container; cap finger-tight. Wait, wipe and read again.
        </Caution>
      </View>
    </Screen>
  );
}
