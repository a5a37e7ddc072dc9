import type { CrewMember } from "@cravix/contract/client";
import { lazy, Suspense, useState } from "react";
import { View } from "react-native";
import { bundleOf, useCrew, useFleet, usePreflights } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { crewPicked } from "../../store/state/session-slice";
import { dayText } from "../../ui/day-and-time";
import { Button } from "../../ui/input/button";
import { ListRow } from "../../ui/input/list-row";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { loadPersonParts } from "../person-due";
import { NightSwitch, PlaceFrame } from "../shell";

const PersonDueList = lazy(async () => ({
  default: (await loadPersonParts()).PersonDueList,
}));

const MAY: Record<string, string> = {
  pilot: "Does preflights and accepts aircraft, logs discrepancies, refuels and adds oil.",
  student: "Does preflights and logs discrepancies; flies with an instructor's authorisation.",
  instructor: "Does preflights and accepts aircraft, is asked before flight, edits added items.",
  mechanic: "Signs off discrepancies, is asked before flight, edits added items.",
  administrator: "Logs discrepancies, plans workshop visits, sees everyone's due items.",
  owner: "Does preflights and accepts aircraft, is asked before flight, edits added items.",
};

/** Members of the group, and selection of the current one. */
export function PeopleScreen() {
  const wide = useWide();
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const [chosen, setChosen] = useState<string>();
  const shown = crew.find((member) => member.id === (chosen ?? crewId)) ?? (wide ? crew[0] : undefined);
  return (
    <PlaceFrame
      name="People"
      list={
        <>
          {crew.length === 0 && (
            <Text className="text-voice">
              The group's members have not been downloaded yet. Connect once to fetch them.
            </Text>
          )}
          {crew.map((member) => (
            <View key={member.id} className="gap-2">
              <Row
                member={member}
                holds={member.id === crewId}
                chosen={member.id === shown?.id}
                onPress={() => setChosen(member.id)}
              />
              {!wide && member.id === shown?.id && <Detail member={member} />}
            </View>
          ))}
          <View className="mt-3 flex-row items-center justify-between gap-3">
            <NavLink
              href="/device"
              className="min-h-14 shrink items-center justify-center rounded-xl border-2 border-ink px-4"
            >
              <Text className="font-strong">This device</Text>
            </NavLink>
            {!wide && <NightSwitch />}
          </View>
        </>
      }
      detail={shown && <Detail member={shown} />}
    />
  );
}

function Row({
  member,
  holds,
  chosen,
  onPress,
}: {
  member: CrewMember;
  holds: boolean;
  chosen: boolean;
  onPress: () => void;
}) {
  return (
    <ListRow chosen={chosen} onPress={onPress} className="flex-row items-center justify-between gap-3">
      <View className="shrink">
        <Text className="font-strong">{member.name}</Text>
        <Text className="text-sm text-voice">{member.role}</Text>
      </View>
      {holds && <Text className="font-mid text-sm">using this device</Text>}
    </ListRow>
  );
}

function Detail({ member }: { member: CrewMember }) {
  const dispatch = useAppDispatch();
  const crewId = useAppSelector((state) => state.session.crewId);
  const fleet = useFleet();
  const state = useAppSelector((whole) => whole);
  // One line per type: its aircraft share the count.
  const byType = new Map<string, number>();
  for (const { registration, typeName } of fleet?.aircraft ?? []) {
    const laps = bundleOf(state, registration)?.laps[member.id] ?? 0;
    if (laps > 0) byType.set(typeName, Math.max(laps, byType.get(typeName) ?? 0));
  }
  return (
    <View className="gap-3">
      <Heading className="text-2xl">{member.name}</Heading>
      <Text>{MAY[member.role]}</Text>
      <View>
        <Heading className="text-lg">Completed preflights</Heading>
        {byType.size === 0 && <Text className="text-voice">None known on this device.</Text>}
        {[...byType].map(([type, laps]) => (
          <View key={type} className="flex-row justify-between gap-4 border-b-2 border-stone py-1.5">
            <Text className="text-voice">{type}</Text>
            <Text className="font-mid">{laps}</Text>
          </View>
        ))}
      </View>
      <Suspense fallback={null}>
        <PersonDueList member={member} />
      </Suspense>
      <LastPreflights crewId={member.id} />
      {member.id === crewId ? (
        <Text className="font-mid">Using this device: everything answered here is signed in this name.</Text>
      ) : (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          onPress={() => dispatch(crewPicked(member.id))}
        >
          {`Switch to ${member.name.split(" ")[0]}`}
        </Button>
      )}
    </View>
  );
}

const SHOWN = 8;

/** Recent preflights of this person. */
function LastPreflights({ crewId }: { crewId: string }) {
  const ready = useAppSelector((state) => state.session.ready);
  const own = (usePreflights(ready).walks ?? [])
    .filter((preflight) => preflight.crewId === crewId)
    .slice(0, SHOWN);
  if (own.length === 0) return null;
  return (
    <View>
      <Heading className="text-lg">Last preflights</Heading>
      {own.map((preflight) => (
        <NavLink
          key={preflight.id}
          href={`/preflight/${preflight.id}/verdict`}
          className="min-h-14 flex-row items-center justify-between gap-4 border-b-2 border-stone"
        >
          <Text className="text-voice">{preflight.startedAt && dayText(preflight.startedAt)}</Text>
          <Text className="shrink font-mid underline">
            {`${preflight.registration}: ${preflight.verdict ?? "not signed yet"}`}
          </Text>
        </NavLink>
      ))}
    </View>
  );
}
