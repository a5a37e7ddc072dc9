import { type CrewMember, can } from "@cravix/contract/client";
import { FLIGHT_KINDS } from "@cravix/core/airworthiness/due/due-item";
import { isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import {
  type JudgedPersonDue,
  judgePerson,
  personSentence,
} from "@cravix/core/airworthiness/people/person-due";
import { capital } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { recordStandalone } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useToday } from "../../store/server/today";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { useFormsSoon } from "../../ui/form/form-library";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Heading, Text } from "../../ui/text";
import { gradeOf } from "../due";
import { AddPersonItem } from "./add-person-item";
import { minimaText } from "./minima-draft";
import { RenewPersonItem } from "./renew-person-item";
import { usePersonDue } from "./use-person-due";

/** Due items of a person, visible to them, instructors and administrators. */
export function PersonDueList({ member }: { member: CrewMember }) {
  useFormsSoon();
  const { may, own, record, away } = usePersonDue(member.id);
  const crew = useCrew();
  const me = useAppSelector((state) => state.session.crewId);
  const role = crew.find(({ id }) => id === me)?.role;
  const today = useToday();
  const rows = useMemo(
    () =>
      record &&
      judgePerson(record, {
        today,
        ends: today,
        kinds: FLIGHT_KINDS,
      }),
    [record, today],
  );
  if (!may)
    return (
      <View>
        <Heading className="text-lg">Medical, ratings and recency</Heading>
        <Text className="text-sm text-voice">
          {`Only ${member.name.split(" ")[0]}, instructors and administrators can see medical, ratings and recency.`}
        </Text>
      </View>
    );
  // Nobody can authorise themselves.
  const gives = can(role && { role }, "person.authorise") && !own;
  return (
    <View className="gap-2" testID="person-due">
      <Heading className="text-lg">Medical, ratings and recency</Heading>
      {away && !record && (
        <Text className="text-voice">No network, and nothing of this is saved on this device.</Text>
      )}
      {!away && !record && <Text className="text-voice">Fetching …</Text>}
      {rows?.length === 0 && <Text className="text-voice">No due items entered.</Text>}
      {rows?.map((row) => (
        <Row
          key={row.item.id}
          row={row}
          personId={member.id}
          today={today}
          mayChange={gives || !["authorisation", "review"].includes(row.item.kind)}
        />
      ))}
      {record && <AddPersonItem personId={member.id} gives={gives} today={today} />}
      <Text className="text-sm text-voice">
        {own
          ? "Only you, instructors and administrators can see this. Recent flying is taken from the technical log. Limits are example values: the rules where you fly come first."
          : "Recent flying is taken from the technical log. Limits are example values."}
      </Text>
    </View>
  );
}

function Row({
  row,
  personId,
  today,
  mayChange,
}: {
  row: JudgedPersonDue;
  personId: string;
  today: string;
  mayChange: boolean;
}) {
  const dispatch = useAppDispatch();
  const { item, due, verdict, recency } = row;
  const [doing, setDoing] = useState<"renew" | "drop">();
  const counted = recency !== undefined;
  const soon = isSoon(verdict);
  return (
    <View className="gap-1 rounded-xl bg-stone px-4 py-3" testID={`person-${item.id}`}>
      <View className="flex-row items-center gap-2">
        <GradeMark grade={soon ? "note" : gradeOf(due, verdict)} size={20} />
        <Text className="shrink font-mid">{item.name}</Text>
      </View>
      <Text>{personSentence(row)}</Text>
      {item.minima && <Text className="text-sm">{capital(`${minimaText(item.minima)}.`)}</Text>}
      <Text className="text-sm text-voice">{item.source.text}</Text>
      {mayChange && doing === undefined && (
        <View className="flex-row flex-wrap gap-2">
          {!counted && (
            <Button
              className="px-4"
              textClassName="text-sm"
              testID={`renew-${item.id}`}
              onPress={() => setDoing("renew")}
            >
              Renew
            </Button>
          )}
          <Button tone="bare" className="px-0" textClassName="text-sm" onPress={() => setDoing("drop")}>
            Remove
          </Button>
        </View>
      )}
      {doing === "renew" && (
        <RenewPersonItem personId={personId} item={item} today={today} onDone={() => setDoing(undefined)} />
      )}
      {doing === "drop" && (
        <View className="flex-row flex-wrap gap-2">
          <Button
            tone="primary"
            className="px-5"
            onPress={() => {
              dispatch(recordStandalone("person", "person.due-dropped", { personId, item: item.id }));
              setDoing(undefined);
            }}
          >
            Remove
          </Button>
          <Button tone="bare" textClassName="text-base" onPress={() => setDoing(undefined)}>
            Cancel
          </Button>
        </View>
      )}
    </View>
  );
}
