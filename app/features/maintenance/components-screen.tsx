import { can } from "@cravix/contract/client";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { metersOfSnapshot } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { fittingError, isFitted } from "@cravix/core/airworthiness/component-moves";
import { sentenceOf } from "@cravix/core/airworthiness/due/due-judgement";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import {
  type Component,
  componentTotals,
  sinceOverhaul,
  type Totals,
} from "@cravix/core/airworthiness/meters/component";
import { isCounted, readingFault, readingFor } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { recordOfAircraft } from "../../store/preflight/record";
import { useCrew } from "../../store/server/server-state";
import { useAppDispatch, useAppSelector } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { dayText } from "../../ui/day-and-time";
import { Screen } from "../../ui/frame/screen";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { TextField } from "../../ui/input/text-field";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, dueRows, gradeOf, NoAirworthinessRecord, useAirworthiness } from "../due";
import { type OnShelf, useWorkshop } from "./use-workshop";

/** Meters of an aircraft, and its life-limited components. */
export function ComponentsScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Known aircraft={aircraft} />}</AircraftFrame>
  );
}

function Known({ aircraft: { bundle } }: { aircraft: KnownAircraft }) {
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

function MeterCard({
  registration,
  meter,
  total,
  mayReplace,
}: {
  registration: string;
  meter: RecordMeter;
  total: number;
  mayReplace: boolean;
}) {
  const dispatch = useAppDispatch();
  const now = new Date().toISOString();
  const shows = readingFor(meter, total, now);
  const [open, setOpen] = useState(false);
  const [oldText, setOld] = useState(String(shows));
  const [newText, setNew] = useState("0");
  const [done, setDone] = useState(false);
  const number = (text: string) => Number(text.trim().replace(",", "."));
  const faultOf = (text: string) =>
    text.trim() === "" ? "Enter the reading." : readingFault(meter, number(text));
  const oldFault =
    faultOf(oldText) ??
    (number(oldText) < shows - 1e-9
      ? `The log already shows ${formatNumber(shows, meter.decimals)}. Check this reading and the last flight entry.`
      : undefined);
  const newFault = faultOf(newText);
  const unit = isCounted(meter.kind) ? "" : " h";
  const last = meter.changes?.at(-1);
  const replace = () => {
    if (oldFault || newFault) return;
    dispatch(
      recordOfAircraft("meter.replaced", {
        registration,
        meter: meter.id,
        oldReading: number(oldText),
        newReading: number(newText),
      }),
    );
    setOpen(false);
    setDone(true);
  };
  return (
    <View className="gap-1 rounded-xl bg-stone px-4 py-3" testID={`meter-${meter.id}`}>
      <Text className="font-mid">{meter.name}</Text>
      <Text>
        {`${formatNumber(total, meter.decimals)}${unit} total${Math.abs(shows - total) > 1e-9 ? `; the meter shows ${formatNumber(shows, meter.decimals)}` : ""}.`}
      </Text>
      {last && (
        <Text className="text-sm text-voice">
          {`Replaced on ${dayText(last.at)}: old meter ${formatNumber(last.oldReading, meter.decimals)}, new meter started at ${formatNumber(last.newReading, meter.decimals)}.`}
        </Text>
      )}
      {done && <Text role="status">Replaced. The totals continue from here.</Text>}
      {mayReplace && !open && (
        <Button
          className="self-start px-5"
          textClassName="text-base"
          testID={`replace-${meter.id}`}
          onPress={() => {
            setOld(String(shows));
            setDone(false);
            setOpen(true);
          }}
        >
          Log a meter replacement
        </Button>
      )}
      {open && (
        <View className="gap-2">
          <TextField
            label="Old meter reading"
            value={oldText}
            onChange={setOld}
            maxLength={12}
            fault={oldFault}
          />
          <TextField
            label="New meter reading"
            value={newText}
            onChange={setNew}
            maxLength={12}
            fault={newFault}
          />
          <View className="flex-row flex-wrap gap-2">
            <Button
              tone="primary"
              className="px-5"
              disabled={oldFault !== undefined || newFault !== undefined}
              testID="save-meter"
              onPress={replace}
            >
              Save
            </Button>
            <Button tone="bare" textClassName="text-base" onPress={() => setOpen(false)}>
              Cancel
            </Button>
          </View>
        </View>
      )}
    </View>
  );
}

/** Hours and counts of a component in words. */
function timesOf(component: Component, totals: Totals, meters: readonly RecordMeter[]): string[] {
  const since = component.sinceOverhaul ? sinceOverhaul(component, totals) : undefined;
  return Object.entries(totals).map(([id, value]) => {
    const meter = meters.find((one) => one.id === id);
    const unit = meter && !isCounted(meter.kind) ? " h" : ` ${meter?.name.toLowerCase() ?? id}`;
    const digits = meter?.decimals ?? 0;
    const overhauled = since?.[id];
    return `${formatNumber(value, digits)}${unit} since new${overhauled === undefined ? "" : `, ${formatNumber(overhauled, digits)}${unit} since overhaul`}`;
  });
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

/** Fits a component, from storage or new. */
function Fit({
  registration,
  papers,
  shelf,
  away,
}: {
  registration: string;
  papers: Airworthiness["onFile"];
  shelf: readonly OnShelf[];
  away: boolean;
}) {
  const dispatch = useAppDispatch();
  // On wide screens stored components are shown at once.
  const [open, setOpen] = useState(useWide());
  const [chosen, setChosen] = useState<string>();
  const [position, setPosition] = useState("");
  const [problem, setProblem] = useState("");
  if (!open)
    return (
      <Button
        className="self-start px-5"
        textClassName="text-base"
        testID="fit-component"
        onPress={() => setOpen(true)}
      >
        Fit a component from the shelf
      </Button>
    );
  const fit = () => {
    const one = shelf.find(({ component }) => component.id === chosen);
    if (!one) return;
    const { component, items, works } = one;
    const place = position.trim();
    const why = fittingError(papers.record, { component, items }, place || undefined);
    if (why) {
      setProblem(why);
      return;
    }
    dispatch(
      recordOfAircraft("component.fitted", {
        registration,
        component,
        items,
        works,
        totals: { ...papers.totals },
        ...(place && { position: place }),
      }),
    );
    setOpen(false);
  };
  return (
    <View className="gap-2 rounded-xl border-2 border-ink px-4 py-3">
      <Heading className="text-lg">On the shelf</Heading>
      {away && (
        <Text className="text-voice">No network: the parts on the shelf are not known on this device.</Text>
      )}
      {!away && shelf.length === 0 && (
        <Text className="text-voice">
          Empty. Components appear here when they are removed from an aircraft.
        </Text>
      )}
      {shelf.map(({ component, from, problem: why }) => (
        <Toggle
          key={component.id}
          disabled={why !== undefined}
          on={component.id === chosen}
          className="items-start px-4"
          textClassName="text-base text-left"
          onPress={() => {
            setChosen(component.id);
            setProblem("");
          }}
        >
          {why === undefined
            ? `${component.name}, from ${from}: ${timesOf(component, component.sinceNew, papers.record.meters).join(", ")}`
            : `${component.name}, from ${from}: its times cannot be calculated. ${why}`}
        </Toggle>
      ))}
      {chosen !== undefined && (
        <TextField
          label="Position on the aircraft"
          value={position}
          onChange={setPosition}
          maxLength={60}
          placeholder="left engine, nose …"
        />
      )}
      {problem !== "" && <Alert>{problem}</Alert>}
      <View className="flex-row flex-wrap gap-2">
        <Button
          tone="primary"
          className="px-5"
          disabled={chosen === undefined}
          testID="save-fitted"
          onPress={fit}
        >
          Fitted: save
        </Button>
        <Button tone="bare" textClassName="text-base" onPress={() => setOpen(false)}>
          Cancel
        </Button>
      </View>
    </View>
  );
}
