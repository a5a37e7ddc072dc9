import { can } from "@cravix/contract/client";
import { metersOfSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { spokenDate } from "@cravix/core/airworthiness/calendar/local-date";
import { isSoon, sentenceOf } from "@cravix/core/airworthiness/due/due-judgement";
import { dueText, remainingText } from "@cravix/core/airworthiness/due/judge-due";
import type { NextDue } from "@cravix/core/airworthiness/due/next-due";
import { isRenewable } from "@cravix/core/airworthiness/life/release";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { type LayoutChangeEvent, View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { Screen } from "../../ui/frame/screen";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { ListRow } from "../../ui/input/list-row";
import { NavLink } from "../../ui/input/nav-link";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { AxisRow, AxisScale } from "./due-axis";
import { gradeOf } from "./grade-of";
import { NoAirworthinessRecord } from "./no-airworthiness-record";
import { Renew } from "./renew";
import { type Airworthiness, type DueRow, dueRows, useAirworthiness } from "./use-airworthiness";

/** Due items of one aircraft, next first, on one axis. */
export function DueScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Due aircraft={aircraft} />}</AircraftFrame>
  );
}

function Due({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, plan } = aircraft;
  const { registration } = bundle.aircraft;
  const papers = useAirworthiness(bundle);
  if (!papers) return <NoAirworthinessRecord registration={registration} />;
  return (
    <DueList
      registration={registration}
      papers={papers}
      minutes={plan.flightMin}
      conditions={plan.conditions}
    />
  );
}

function DueList({
  registration,
  papers,
  minutes,
  conditions,
}: {
  registration: string;
  papers: Airworthiness;
  minutes: number;
  conditions: KnownAircraft["plan"]["conditions"];
}) {
  const wide = useWide();
  const [chosen, setChosen] = useState<string>();
  const [width, setWidth] = useState(wide ? 520 : 320);
  const rows = useMemo(
    () => dueRows(papers, { at: new Date().toISOString(), minutes, conditions }),
    [papers, minutes, conditions],
  );
  const shown = rows.find(({ item }) => item.id === chosen) ?? (wide ? rows[0] : undefined);
  const measure = ({ nativeEvent }: LayoutChangeEvent) => setWidth(Math.floor(nativeEvent.layout.width));
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead title={`${registration} due items`}>{`${registration}: due items`}</PageHead>
      <Totals papers={papers} />
      <Daily registration={registration} papers={papers} />
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3"}>
        <View className={wide ? "flex-[1.5]" : ""}>
          <Text className="text-sm text-voice">
            The dot is the likely due date, the bar the range it may fall in.
          </Text>
          <View onLayout={measure} className="mb-1">
            <AxisScale width={width} />
          </View>
          <View className="gap-2">
            {rows.map((row) => (
              <View key={row.item.id} className="gap-2">
                <Row
                  row={row}
                  papers={papers}
                  chosen={row.item.id === shown?.item.id}
                  width={width}
                  onPress={() => setChosen(row.item.id === chosen && !wide ? undefined : row.item.id)}
                />
                {!wide && row.item.id === shown?.item.id && <Detail row={row} papers={papers} />}
              </View>
            ))}
          </View>
        </View>
        {wide && shown && (
          <View className="flex-1 gap-4">
            <Detail key={shown.item.id} row={shown} papers={papers} />
            <Doors registration={registration} />
          </View>
        )}
      </View>
      {!wide && <Doors registration={registration} />}
      <Text className="mt-3 text-sm text-voice">
        {`Assessed for a flight of ${minutes} minutes${conditions.length > 0 ? ` (${conditions.join(", ")})` : ""} today. Forecasts use the aircraft's past flying; nine in ten fall within the bar. Limits are example values: the aircraft's own maintenance programme comes first.`}
      </Text>
    </Screen>
  );
}

/** Daily inspection: valid for its day, signed before the first start by an authorised person. */
function Daily({ registration, papers: { onFile, today } }: { registration: string; papers: Airworthiness }) {
  const dispatch = useAppDispatch();
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === crewId)?.role;
  const { daily } = onFile;
  const [here, setHere] = useState(false);
  if (here || daily?.date === today)
    return (
      <Text className="mt-2" testID="daily">
        {`Daily inspection signed for today${daily?.date === today ? ` by ${crew.find(({ id }) => id === daily.crewId)?.name ?? daily.crewId}` : ""}.`}
      </Text>
    );
  return (
    <View className="mt-2 flex-row flex-wrap items-center gap-3">
      <Text testID="daily">{`Daily inspection: not signed for today${daily ? `, last on ${spokenDate(daily.date)}` : ""}.`}</Text>
      {can(role && { role }, "daily.sign") && (
        <Button
          className="px-5"
          textClassName="text-base"
          onPress={() => {
            dispatch(recordOfAircraft("daily.signed", { registration, date: today }));
            setHere(true);
          }}
        >
          Inspection done: sign
        </Button>
      )}
    </View>
  );
}

function Doors({ registration }: { registration: string }) {
  return (
    <View className="mt-2 flex-row flex-wrap gap-2">
      <Door href={`/aircraft/${registration}/flights`}>Technical log</Door>
      <Door href={`/aircraft/${registration}/release`}>Release to service</Door>
      <Door href={`/aircraft/${registration}/components`}>Meters and components</Door>
    </View>
  );
}

function Door({ href, children }: { href: string; children: string }) {
  return (
    <NavLink href={href} className="min-h-14 items-center justify-center rounded-xl border-2 border-ink px-4">
      <Text className="font-strong">{children}</Text>
    </NavLink>
  );
}

/** Meter totals. */
function Totals({ papers: { onFile } }: { papers: Airworthiness }) {
  return (
    <View className="mt-1 flex-row flex-wrap gap-x-6">
      {onFile.record.meters.map(({ id, name, kind, decimals }) => (
        <View key={id}>
          <Text className="text-sm text-voice">{name}</Text>
          <Text className="font-strong text-xl">
            {`${formatNumber(onFile.totals[id] ?? 0, decimals)}${isCounted(kind) ? "" : " h"}`}
          </Text>
        </View>
      ))}
    </View>
  );
}

function Row({
  row,
  papers,
  chosen,
  width,
  onPress,
}: {
  row: DueRow;
  papers: Airworthiness;
  chosen: boolean;
  width: number;
  onPress: () => void;
}) {
  const { item, verdict, when } = row;
  const meters = metersOfSnapshot(papers.pinned);
  const { limit } = when ?? {};
  const left = limit ?? verdict.first ?? verdict.limits[0];
  const grade = gradeOf(item, verdict);
  return (
    <ListRow chosen={chosen} onPress={onPress} className="gap-1" testID={`due-${item.id}`}>
      <View className="flex-row items-center gap-2">
        <GradeMark grade={grade} size={18} />
        <Text className="min-w-0 flex-1 font-mid" numberOfLines={1}>
          {item.name}
        </Text>
        <Text className="font-strong">
          {left
            ? remainingText(left, left.left, meters)
            : verdict.state === "not known"
              ? "not known"
              : "done"}
        </Text>
      </View>
      {verdict.problem !== undefined && <Text className="text-sm">{sentenceOf(item, verdict, meters)}</Text>}
      {when && (
        <AxisRow
          today={papers.today}
          from={when.from}
          middle={when.middle}
          to={when.to}
          overdue={verdict.state === "overdue"}
          width={width - 32}
        />
      )}
    </ListRow>
  );
}

function Detail({ row: { item, verdict, when, due }, papers }: { row: DueRow; papers: Airworthiness }) {
  const wide = useWide();
  const crewId = useAppSelector((state) => state.session.crewId);
  const me = useCrew().find(({ id }) => id === crewId);
  const meters = metersOfSnapshot(papers.pinned);
  const grade = gradeOf(item, verdict);
  const nameOf = (id: string) => papers.pinned.dues.find((one) => one.item.id === id)?.item.name ?? id;
  return (
    <View className="gap-2 rounded-xl bg-stone px-4 py-3" testID="due-detail">
      {wide && <Heading className="text-2xl">{item.name}</Heading>}
      <View className="flex-row items-center gap-2">
        <GradeMark grade={grade} />
        <Text className="font-strong">
          {verdict.state === "not for this flight"
            ? "Not needed for this flight"
            : isSoon(verdict)
              ? "In date, due soon"
              : GRADE_WORD[grade]}
        </Text>
      </View>
      <Text>{sentenceOf(item, verdict, meters)}</Text>
      {when && !when.certain && when.middle && (
        <Text>{`By how it is flown, between ${spokenDate(when.from)} and ${when.to ? spokenDate(when.to) : "more than two years ahead"}.`}</Text>
      )}
      {due.points.length > 1 &&
        due.points.map((point) => (
          <Text
            key={JSON.stringify(point)}
            className="text-sm text-voice"
          >{`Valid until ${dueText(point, meters)}.`}</Text>
        ))}
      <Text className="text-sm text-voice">{lastWork(due, nameOf)}</Text>
      <Text className="text-sm text-voice">{`${item.source.text}${item.source.example ? " (example value)" : ""}`}</Text>
      {isRenewable(item) && can(me && { role: me.role }, "document.renew") && (
        <Renew registration={papers.onFile.record.registration} item={item} today={papers.today} />
      )}
    </View>
  );
}

/** When it was last done, through which other work, and what ended it. */
function lastWork({ last, ended }: NextDue, nameOf: (id: string) => string): string {
  if (ended) return `Ended by ${nameOf(ended.item)} on ${spokenDate(ended.date)}.`;
  if (!last) return "No work on record: the date is printed on the item itself.";
  const through = last.through === undefined ? "" : `, with ${nameOf(last.through)}`;
  const printed = last.sets?.source ? ` (${last.sets.source})` : "";
  return `Last done on ${spokenDate(last.date)}${through}${printed}.`;
}
