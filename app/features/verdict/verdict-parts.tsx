import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { Judgement } from "@cravix/core/judgement/judgement";
import { formatQuantity } from "@cravix/core/units/format";
import { View } from "react-native";
import { useCrew } from "../../store/server/server-state";
import { useAppSelector } from "../../store/state/hooks";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";

/** Open items listed before the rest is only counted. */
const LISTED = 6;

/** Items without an answer, each one tap away. */
export function StillOpen({
  unanswered,
  list,
  disabled,
  onGo,
}: {
  unanswered: readonly Item[];
  list: ComposedList;
  disabled: boolean;
  onGo: (itemId: string) => void;
}) {
  if (unanswered.length === 0) return null;
  return (
    <View className="gap-2">
      <Heading className="text-lg">Still open: {unanswered.length}</Heading>
      {unanswered.slice(0, LISTED).map((item) => (
        <Button
          key={item.id}
          className="items-start"
          textClassName="text-base text-left"
          onPress={() => onGo(item.id)}
          disabled={disabled}
        >
          {`${list.stations.find((s) => s.id === item.station)?.name}: ${item.title}`}
        </Button>
      ))}
      {unanswered.length > LISTED && (
        <Text className="text-sm text-voice">and {unanswered.length - LISTED} more</Text>
      )}
    </View>
  );
}

/** Who was asked: a mechanic, an instructor or an owner other than the pilot. */
export function WhoAsked({
  asked,
  onAsked,
}: {
  asked: string | undefined;
  onAsked: (crewId: string) => void;
}) {
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  return (
    <View className="gap-2">
      <Heading className="text-lg">Who did you ask?</Heading>
      <Text className="text-sm text-voice">
        Ask one of these people, tell them the reasons above, then select who you asked.
      </Text>
      <View className="flex-row flex-wrap gap-2">
        {crew
          .filter((member) => member.id !== me && ["mechanic", "instructor", "owner"].includes(member.role))
          .map((member) => (
            <Toggle key={member.id} on={asked === member.id} onPress={() => onAsked(member.id)}>
              {`${member.name}, ${member.role}`}
            </Toggle>
          ))}
      </View>
    </View>
  );
}

/** What was measured and is within limits, with margin and source. */
export function WithinLimits({ judgements }: { judgements: readonly Judgement[] }) {
  return (
    <>
      <Heading className="text-lg">Measured and within limits: {judgements.length}</Heading>
      {judgements.map((judgement) => (
        <View key={judgement.id} className="border-b-2 border-stone pb-1">
          <View className="flex-row items-center gap-2">
            <GradeMark grade="within limits" size={14} />
            <Text className="shrink grow text-sm">{judgement.subject}</Text>
            {judgement.reading && (
              <Text className="shrink-0 font-strong">{formatQuantity(judgement.reading)}</Text>
            )}
          </View>
          <Text className="pl-6 text-xs text-voice">
            {[
              judgement.limit,
              judgement.margin && `margin ${formatQuantity(judgement.margin)}`,
              judgement.source?.text,
            ]
              .filter(Boolean)
              .join(" · ")}
          </Text>
        </View>
      ))}
    </>
  );
}
