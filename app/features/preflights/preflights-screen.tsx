import type { PreflightSummary } from "@cravix/contract/client";
import { conditionText } from "@cravix/core";
import { useState } from "react";
import { View } from "react-native";
import { useAppSelector } from "../../store/hooks";
import { useCrew, useFleet, usePreflights } from "../../store/server/server-state";
import { dayAndClockText, dayText } from "../../ui/day-and-time";
import { GradeMark, VERDICT_GRADE } from "../../ui/grade-mark";
import { ListRow } from "../../ui/input/list-row";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { LogParts } from "../shell/log-parts";
import { PlaceFrame } from "../shell/place-frame";

/** The group's recent preflights with pilot, verdict and details. */
export function PreflightsScreen() {
  const wide = useWide();
  const ready = useAppSelector((state) => state.session.ready);
  const { walks, failed } = usePreflights(ready);
  const [chosen, setChosen] = useState<string>();
  const shown = walks?.find((walk) => walk.id === chosen) ?? (wide ? walks?.[0] : undefined);
  return (
    <PlaceFrame
      name="Log"
      parts={<LogParts here="/log/walks" />}
      list={
        <>
          {!walks && (
            <Text className="text-voice">
              {failed
                ? "No network, and the group's preflights are not saved on this device yet."
                : "Fetching recent preflights …"}
            </Text>
          )}
          {walks?.length === 0 && <Text className="text-voice">No preflights yet.</Text>}
          {walks?.map((walk) => (
            <View key={walk.id} className="gap-2">
              <Row
                walk={walk}
                chosen={walk.id === shown?.id}
                onPress={() => setChosen(walk.id === chosen && !wide ? undefined : walk.id)}
              />
              {!wide && walk.id === shown?.id && <Detail walk={walk} />}
            </View>
          ))}
        </>
      }
      detail={shown && <Detail walk={shown} />}
    />
  );
}

const comesTo = ({ verdict, decision }: PreflightSummary) =>
  verdict ? [verdict, decision].filter(Boolean).join(", ") : "not signed yet";
const gradeOf = ({ verdict }: PreflightSummary) =>
  verdict && verdict !== "unfinished" ? VERDICT_GRADE[verdict] : "unjudged";

function Row({ walk, chosen, onPress }: { walk: PreflightSummary; chosen: boolean; onPress: () => void }) {
  const crew = useCrew();
  return (
    <ListRow chosen={chosen} onPress={onPress}>
      <GradeMark grade={gradeOf(walk)} />
      <View className="shrink grow">
        <Text className="font-strong">{walk.registration}</Text>
        <Text className="text-sm text-voice">
          {[walk.startedAt && dayText(walk.startedAt), crew.find((m) => m.id === walk.crewId)?.name]
            .filter(Boolean)
            .join(", ")}
        </Text>
      </View>
      <Text className="shrink text-right text-sm">{comesTo(walk)}</Text>
    </ListRow>
  );
}

function Detail({ walk }: { walk: PreflightSummary }) {
  const crew = useCrew();
  const type = useFleet()?.aircraft.find((a) => a.registration === walk.registration)?.typeName;
  const lines: [string, string | undefined][] = [
    ["Pilot", crew.find((member) => member.id === walk.crewId)?.name],
    ["Started", walk.startedAt ? dayAndClockText(walk.startedAt) : undefined],
    ["Signed", walk.signedAt ? dayAndClockText(walk.signedAt) : "not yet"],
    ["Conditions", walk.conditions.length > 0 ? walk.conditions.map(conditionText).join(", ") : "normal"],
    ["Items answered", String(walk.answered)],
    ["Discrepancies found", String(walk.found)],
  ];
  return (
    <View className="gap-3" testID="walk-detail">
      <View className="flex-row items-center gap-3">
        <GradeMark grade={gradeOf(walk)} size={36} />
        <View className="shrink">
          <Heading className="text-2xl">{`${walk.registration}: ${comesTo(walk)}`}</Heading>
          <Text className="text-voice">{type}</Text>
        </View>
      </View>
      <View>
        {lines.map(
          ([label, value]) =>
            value !== undefined && (
              <View key={label} className="flex-row justify-between gap-4 border-b-2 border-stone py-1.5">
                <Text className="text-voice">{label}</Text>
                <Text className="shrink text-right font-mid">{value}</Text>
              </View>
            ),
        )}
      </View>
      <NavLink
        href={`/preflight/${walk.id}/verdict`}
        className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-5"
      >
        <Text className="font-strong">Verdict, reasons and readings</Text>
      </NavLink>
    </View>
  );
}
