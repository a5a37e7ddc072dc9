import type { PreflightSummary } from "@cravix/contract/client";
import { conditionText } from "@cravix/core/aircraft/condition-text";
import { useState } from "react";
import { View } from "react-native";
import { useCrew, useFleet, usePreflights } from "../../store/server/server-state";
import { useAppSelector } from "../../store/state/hooks";
import { dayAndClockText, dayText } from "../../ui/day-and-time";
import { GradeMark, VERDICT_GRADE } from "../../ui/grade-mark";
import { ListRow } from "../../ui/input/list-row";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { LogParts, PlaceFrame } from "../shell";

/** The group's recent preflights with pilot, verdict and details. */
export function PreflightsScreen() {
  const wide = useWide();
  const ready = useAppSelector((state) => state.session.ready);
  const { walks, failed } = usePreflights(ready);
  const [chosen, setChosen] = useState<string>();
  const shown = walks?.find((preflight) => preflight.id === chosen) ?? (wide ? walks?.[0] : undefined);
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
          {walks?.map((preflight) => (
            <View key={preflight.id} className="gap-2">
              <Row
                preflight={preflight}
                chosen={preflight.id === shown?.id}
                onPress={() => setChosen(preflight.id === chosen && !wide ? undefined : preflight.id)}
              />
              {!wide && preflight.id === shown?.id && <Detail preflight={preflight} />}
            </View>
          ))}
        </>
      }
      detail={shown && <Detail preflight={shown} />}
    />
  );
}

const comesTo = ({ verdict, decision }: PreflightSummary) =>
  verdict ? [verdict, decision].filter(Boolean).join(", ") : "not signed yet";
const gradeOf = ({ verdict }: PreflightSummary) =>
  verdict && verdict !== "unfinished" ? VERDICT_GRADE[verdict] : "unjudged";

function Row({
  preflight,
  chosen,
  onPress,
}: {
  preflight: PreflightSummary;
  chosen: boolean;
  onPress: () => void;
}) {
  const crew = useCrew();
  return (
    <ListRow chosen={chosen} onPress={onPress}>
      <GradeMark grade={gradeOf(preflight)} />
      <View className="shrink grow">
        <Text className="font-strong">{preflight.registration}</Text>
        <Text className="text-sm text-voice">
          {[
            preflight.startedAt && dayText(preflight.startedAt),
            crew.find((m) => m.id === preflight.crewId)?.name,
          ]
            .filter(Boolean)
            .join(", ")}
        </Text>
      </View>
      <Text className="shrink text-right text-sm">{comesTo(preflight)}</Text>
    </ListRow>
  );
}

function Detail({ preflight }: { preflight: PreflightSummary }) {
  const crew = useCrew();
  const type = useFleet()?.aircraft.find((a) => a.registration === preflight.registration)?.typeName;
  const lines: [string, string | undefined][] = [
    ["Pilot", crew.find((member) => member.id === preflight.crewId)?.name],
    ["Started", preflight.startedAt ? dayAndClockText(preflight.startedAt) : undefined],
    ["Signed", preflight.signedAt ? dayAndClockText(preflight.signedAt) : "not yet"],
    [
      "Conditions",
      preflight.conditions.length > 0 ? preflight.conditions.map(conditionText).join(", ") : "normal",
    ],
    ["Items answered", String(preflight.answered)],
    ["Discrepancies found", String(preflight.found)],
  ];
  return (
    <View className="gap-3" testID="walk-detail">
      <View className="flex-row items-center gap-3">
        <GradeMark grade={gradeOf(preflight)} size={36} />
        <View className="shrink">
          <Heading className="text-2xl">{`${preflight.registration}: ${comesTo(preflight)}`}</Heading>
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
        href={`/preflight/${preflight.id}/verdict`}
        className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-5"
      >
        <Text className="font-strong">Verdict, reasons and readings</Text>
      </NavLink>
    </View>
  );
}
