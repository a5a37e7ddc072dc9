import type { EventData } from "@cravix/core/checklist/stream/events";
import { type OilProfile, oilAdditionFault } from "@cravix/core/oil/judge-oil";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { Choice } from "../../ui/input/choice";
import { Stepper } from "../../ui/input/stepper";
import { Caution } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";

type Added = Omit<EventData["oil.added"], "registration">;

const SEALED = ["unopened", "already open"] as const;
const ANOTHER = "another grade";

/** State of an oil addition form, with its faults. */
export function useOilAddition(
  profile: OilProfile | undefined,
  engines: readonly string[] | undefined,
  levelOf: (engine: string | undefined) => number | undefined,
  suggested: number,
) {
  const [engine, setEngine] = useState(engines?.[0]);
  const [count, setCount] = useState(Math.max(1, suggested));
  const [grade, setGrade] = useState(profile?.grades?.[0]);
  const [sealed, setSealed] = useState<(typeof SEALED)[number]>("unopened");
  const added: Added = {
    qt: count * (profile?.containerQt ?? 1),
    sealed: sealed === "unopened",
    ...(engine && { engine }),
    ...(grade && { grade: grade === ANOTHER ? "another" : grade }),
  };
  const against =
    grade === ANOTHER
      ? `Not an approved grade for this engine: use ${profile?.grades?.join(", ")}.`
      : oilAdditionFault(added, profile, levelOf(engine));
  return {
    engine,
    setEngine,
    count,
    setCount,
    grade,
    setGrade,
    sealed,
    setSealed,
    added,
    against,
    profile,
    engines,
  };
}

/** Engine, number of containers, grade, and whether they were sealed. */
export function AddOilForm({ form }: { form: ReturnType<typeof useOilAddition> }) {
  const { profile, engines, against } = form;
  const container = profile?.containerQt ?? 1;
  return (
    <View className="gap-5">
      {engines && (
        <Choice title="Which engine" options={engines} value={form.engine} onChange={form.setEngine} />
      )}
      <View className="gap-1.5">
        <Heading className="text-lg">How many containers</Heading>
        <Stepper
          text={`${form.count} × ${formatNumber(container, container % 1 === 0 ? 0 : 2)} qt`}
          step={1}
          unit="containers"
          testID="containers"
          onStep={(by) => form.setCount(Math.min(12, Math.max(1, form.count + by)))}
        />
      </View>
      {profile?.grades && (
        <Choice
          title="Oil grade on the label"
          options={[...profile.grades, ANOTHER]}
          value={form.grade}
          onChange={form.setGrade}
        />
      )}
      <Choice title="The container was" options={SEALED} value={form.sealed} onChange={form.setSealed} />
      {against && (
        <View role="alert" className="rounded-lg border-2 border-clay px-3 py-2" testID="trouble">
          <Text className="font-mid text-clay">
            {`${against} Do not add it. If it is already in, log it: the preflight will ask about it.`}
          </Text>
        </View>
      )}
      <Caution>
        Only the approved grade, from an unopened container. Cap finger-tight. Wait, wipe the dipstick and
        check again.
      </Caution>
    </View>
  );
}
