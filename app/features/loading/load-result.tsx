import { checkLoad } from "@cravix/core/mass-and-balance/check-load";
import { armOf } from "@cravix/core/mass-and-balance/load-path";
import type { Burn, Load, LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { probabilityOutsideLimits } from "@cravix/core/mass-and-balance/loading-risk";
import { changesText, faultText } from "@cravix/core/mass-and-balance/loading-text";
import { remainingCapacity } from "@cravix/core/mass-and-balance/smallest-change";
import { changesWithinLimits } from "@cravix/core/mass-and-balance/two-changes";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo } from "react";
import { View } from "react-native";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { EnvelopeDrawing } from "./envelope-drawing";

/** The first problem, or "within limits". */
export function LoadBrief({ profile, load, burn }: { profile: LoadingProfile; load: Load; burn: Burn }) {
  const { faults, missing, points } = checkLoad(profile, load, burn);
  const takeOff = points.find(({ name }) => name === "take-off");
  const [worst] = faults;
  return (
    <Text className="font-strong text-lg text-deck-ink" testID="loading-brief">
      {worst
        ? `${GRADE_WORD.stop}: ${faultText(worst)}`
        : (missing[0] ?? `Within limits: ${formatNumber(takeOff?.kg ?? 0)} kg at take-off`)}
    </Text>
  );
}

/** Result: within limits or not, changes that would help, envelope, remaining capacity. */
export function LoadResult({ profile, load, burn }: { profile: LoadingProfile; load: Load; burn: Burn }) {
  const wide = useWide();
  const check = useMemo(() => checkLoad(profile, load, burn), [profile, load, burn]);
  const outside = check.faults.length > 0;
  const open = !outside && check.missing.length > 0;
  const ways = useMemo(
    () => (outside ? changesWithinLimits(profile, load, burn, 4) : []),
    [profile, load, burn, outside],
  );
  const room = useMemo(
    () => (outside ? [] : remainingCapacity(profile, load, burn).filter(({ kg }) => kg > 0)),
    [profile, load, burn, outside],
  );
  const chance = useMemo(
    () => probabilityOutsideLimits(profile, load, burn, undefined, 400),
    [profile, load, burn],
  );
  const takeOff = check.points.find(({ name }) => name === "take-off");
  if (open)
    return (
      <View className="gap-2" role="status" testID="loading-result">
        <View className="flex-row items-center gap-3">
          <GradeMark grade="ask" size={30} />
          <Text className="shrink font-strong text-xl">A person's mass is missing</Text>
        </View>
        {check.missing.map((question) => (
          <Text key={question}>{question}</Text>
        ))}
        <Text className="text-voice">
          Enter the mass of every person. Mass and balance cannot be calculated without it.
        </Text>
      </View>
    );
  const nameOf = (id: string) => profile.stations.find((one) => one.id === id)?.name ?? id;
  return (
    <View className="gap-3">
      <View className="flex-row items-center gap-3" role="status" testID="loading-result">
        <GradeMark grade={outside ? "stop" : "within limits"} size={30} />
        <Text className={`shrink font-strong text-xl ${outside ? "text-clay" : ""}`}>
          {outside
            ? `${GRADE_WORD.stop}: outside limits`
            : `Within limits: ${formatNumber(takeOff?.kg ?? 0)} kg at ${formatNumber(takeOff ? armOf(takeOff) : 0)} mm`}
        </Text>
      </View>
      {check.faults.map((fault) => (
        <Text key={`${fault.kind}${fault.of}`} className="font-mid text-clay">
          {faultText(fault)}
        </Text>
      ))}
      {check.missing.map((question) => (
        <Text key={question} className="font-mid">
          {question}
        </Text>
      ))}
      {ways.length > 0 && (
        <View className="gap-1" testID="changes">
          <Heading className="text-lg">
            {ways[0]?.length === 1
              ? "Smallest change that brings it within limits"
              : "No single change is enough. Two changes together bring it within limits"}
          </Heading>
          {ways.map((way, i) => (
            <Text key={JSON.stringify(way)} className={i === 0 ? "font-strong" : ""}>
              {changesText(way, profile)}
            </Text>
          ))}
        </View>
      )}
      {outside && ways.length === 0 && (
        <Text>Two changes are not enough to get within limits: plan the load again.</Text>
      )}
      <EnvelopeDrawing profile={profile} points={check.points} outside={outside} height={wide ? 330 : 260} />
      {room.length > 0 && (
        <Text>
          {`You can still add ${room.map(({ id, kg }) => `${formatNumber(kg)} kg in ${nameOf(id)}`).join(", or ")}.`}
        </Text>
      )}
      {!outside && chance > 0.02 && (
        <Text className="font-mid">
          {`Close to the limit: with the usual errors in scales, clothing and dips it is outside in ${formatNumber(chance * 100)} of 100 cases.`}
        </Text>
      )}
      <Text className="text-sm text-voice">
        {`Envelope: ${profile.envelope.source.text}. The aircraft's own weighing report and handbook come first.`}
      </Text>
    </View>
  );
}
