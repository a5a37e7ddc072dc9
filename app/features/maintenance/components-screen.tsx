import { can } from "@cravix/contract/client";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { metersOfSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { isFitted } from "@cravix/core/airworthiness/component-moves";
import { sentenceOf } from "@cravix/core/airworthiness/due/due-judgement";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import { componentTotals, type Totals } from "@cravix/core/airworthiness/meters/component";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { useFormsSoon } from "../../ui/form/form-library";
import { Screen } from "../../ui/frame/screen";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, dueRows, gradeOf, NoAirworthinessRecord, useAirworthiness } from "../due";
import { timesOf } from "./component-times";
import { Fit } from "./fit-component";
import { MeterCard } from "./meter-card";
import { useWorkshop } from "./use-workshop";

/** Meters of an aircraft, and its life-limited components. */
export function ComponentsScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Known aircraft={aircraft} />}</AircraftFrame>
  );
}

function Known({ aircraft: { bundle } }: { aircraft: KnownAircraft }) {
  useFormsSoon();
  const { registration } = bundle.aircraft;
  const wide = useWide();
  const papers = useAirworthiness(bundle);
  const crew = useCrew();
  const crewId = useAppSelector((state) => state.session.crewId);
  const role = crew.find((member) => member.id === crewId)?.role;
  if (!papers) return <NoAirworthinessRecord registration={registration} />;
  const mayReplace = can(role && { role }, "meter.replace");
  const mayMove = can(role && { role }, "component.move");
  return (
    <Screen back={`/aircraft/${registration}/due`}>
      <PageHead
        title={`${registration} meters and components`}
      >{`${registration}: meters and components`}</PageHead>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-5"}>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <Heading className="text-lg">Meters</Heading>
          {papers.onFile.record.meters.map((meter) => (
            <MeterCard
              key={meter.id}
              registration={registration}
              meter={meter}
              total={papers.onFile.totals[meter.id] ?? 0}
              mayReplace={mayReplace && !isCounted(meter.kind)}
            />
          ))}
          {!mayReplace && <Text className="text-sm text-voice">Only a mechanic can replace a meter.</Text>}
        </View>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <Heading className="text-lg">Components</Heading>
          <Fitted registration={registration} papers={papers} mayMove={mayMove} />
        </View>
      </View>
    </Screen>
  );
}

function Fitted({
  registration,
  papers,
  mayMove,
}: {
  registration: string;
  papers: Airworthiness;
  mayMove: boolean;
}) {
  const dispatch = useAppDispatch();
  const { onFile } = papers;
  const { record, totals } = onFile;
  const meters = metersOfSnapshot(papers.pinned);
  const rows = useMemo(
    () =>
      dueRows(papers, { at: new Date().toISOString(), minutes: 0, landings: 0, conditions: ["instrument"] }),
    [papers],
  );
  const { shelf, away } = useWorkshop();
  const [removing, setRemoving] = useState<string>();
  const on = record.components.filter(({ id }) => isFitted(record, id));
  const here = record.components.filter(({ id }) => !isFitted(record, id));
  return (
    <View className="gap-2">
      {on.length === 0 && (
        <Text className="text-voice">No component with its own times or life limits is on record.</Text>
      )}
      {on.map((component) => {
        const own = calculated(() => componentTotals(component, record.fittings, totals));
        const position = record.fittings.find((one) => one.component === component.id && !one.off)?.position;
        return (
          <View
            key={component.id}
            className="gap-1 rounded-xl bg-stone px-4 py-3"
            testID={`component-${component.id}`}
          >
            <Text className="font-mid">
              {[
                component.name,
                position?.toLowerCase() === component.name.toLowerCase() ? undefined : position,
                component.serial && `no. ${component.serial}`,
              ]
                .filter(Boolean)
                .join(", ")}
            </Text>
            {"problem" in own && (
              <Text className="font-mid text-clay">{`Cannot be calculated. ${own.problem}`}</Text>
            )}
            {"value" in own &&
              timesOf(component, own.value, record.meters).map((line) => <Text key={line}>{line}</Text>)}
            {rows
              .filter(({ item }) => item.of === component.id)
              .map(({ item, verdict }) => (
                <View key={item.id} className="flex-row items-center gap-2">
                  <GradeMark grade={gradeOf(item, verdict)} size={16} />
                  <Text className="shrink text-sm">{`${item.name}: ${sentenceOf(item, verdict, meters)}`}</Text>
                </View>
              ))}
            {mayMove && removing !== component.id && (
              <Button
                className="self-start px-5"
                textClassName="text-base"
                testID={`remove-${component.id}`}
                onPress={() => setRemoving(component.id)}
              >
                Log removal
              </Button>
            )}
            {removing === component.id && (
              <View className="gap-2">
                <Text>
                  {`It goes to the shelf with its times. Its due items no longer apply to ${registration}. Aircraft totals: ${totalsText(totals, record.meters)}.`}
                </Text>
                <View className="flex-row flex-wrap gap-2">
                  <Button
                    tone="primary"
                    className="px-5"
                    testID="save-removed"
                    onPress={() => {
                      dispatch(
                        recordOfAircraft("component.removed", {
                          registration,
                          component: component.id,
                          totals: { ...totals },
                        }),
                      );
                      setRemoving(undefined);
                    }}
                  >
                    Removed: save
                  </Button>
                  <Button tone="bare" textClassName="text-base" onPress={() => setRemoving(undefined)}>
                    Cancel
                  </Button>
                </View>
              </View>
            )}
          </View>
        );
      })}
      {here.map(({ id, name }) => (
        <Text
          key={id}
          className="text-sm text-voice"
        >{`${name} was removed. It is on the shelf or on another aircraft.`}</Text>
      ))}
      {mayMove && <Fit registration={registration} papers={onFile} shelf={shelf} away={away} />}
      {!mayMove && <Text className="text-sm text-voice">Only a mechanic can remove and fit components.</Text>}
    </View>
  );
}

const totalsText = (totals: Totals, meters: readonly RecordMeter[]): string =>
  meters
    .map(
      ({ id, name, kind, decimals }) =>
        `${formatNumber(totals[id] ?? 0, decimals)} ${isCounted(kind) ? name.toLowerCase() : "h"}`,
    )
    .join(", ");
