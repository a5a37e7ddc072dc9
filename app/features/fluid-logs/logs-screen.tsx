import type { CsvFault, ImportOutcome } from "@cravix/contract/client";
import { applyVariant } from "@cravix/core/aircraft/apply-variant";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import type { OilProfile } from "@cravix/core/oil/judge-oil";
import { compareOilUse, forecastText, judgeOilUse } from "@cravix/core/oil/judge-oil-use";
import { forecastOil, type OilTrend } from "@cravix/core/oil/oil-consumption";
import { formatNumber } from "@cravix/core/units/format";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { api } from "../../device/api";
import { pickTextFile, saveBlob } from "../../device/platform/pick-file";
import { recordPutIn } from "../../store/preflight/record";
import { useImportFluidsMutation } from "../../store/server/records-api";
import { useAppDispatch } from "../../store/state/hooks";
import { dayText } from "../../ui/day-and-time";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { Toggle } from "../../ui/input/toggle";
import { JudgementCard } from "../../ui/judgement-card";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { CsvFaults, Refuel } from "../fuel";
import { AddOilForm, useOilAddition } from "./add-oil-form";
import { OilPlot } from "./oil-plot";
import { type Logs, useLogs } from "./use-logs";

/** Fuel and oil log of one aircraft: consumption, additions, CSV import and export. */
export function LogsScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Log aircraft={aircraft} />}</AircraftFrame>
  );
}

const PARTS = ["Oil", "Fuel"] as const;

function Log({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle } = aircraft;
  const { registration } = bundle.aircraft;
  const wide = useWide();
  const [part, setPart] = useState<(typeof PARTS)[number]>("Oil");
  const fluid = part === "Oil" ? "oil" : "fuel";
  // Type with this model year's variant applied.
  const type = useMemo(
    () => applyVariant(bundle.type, bundle.aircraft.year).type,
    [bundle.type, bundle.aircraft.year],
  );
  const logs = useLogs(bundle, type, fluid);
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead>{`${registration}: fuel and oil`}</PageHead>
      <View className="my-3 flex-row gap-2">
        {PARTS.map((name) => (
          <Toggle
            key={name}
            on={part === name}
            className={wide ? "min-w-40 px-6" : "flex-1"}
            textClassName="text-lg"
            onPress={() => setPart(name)}
          >
            {name}
          </Toggle>
        ))}
      </View>
      <View className={wide ? "flex-row gap-8" : "gap-5"}>
        <View className={wide ? "flex-[1.5] gap-4" : "gap-4"}>
          {part === "Oil" ? (
            <>
              <Oil logs={logs} profile={type.oil} />
              {type.oil && <OilOutsidePreflight aircraft={aircraft} onLogged={logs.reload} />}
            </>
          ) : (
            <FuelOutsidePreflight aircraft={aircraft} onLogged={logs.reload} />
          )}
        </View>
        <View className={wide ? "flex-1 gap-4" : "gap-4"}>
          <Tables key={fluid} registration={registration} fluid={fluid} onTaken={logs.reload} />
          <Lines logs={logs} fluid={fluid} />
        </View>
      </View>
    </Screen>
  );
}

const RANGES = ["Last 50 h", "Last 200 h", "All"] as const;
const HOURS: Record<(typeof RANGES)[number], number | undefined> = {
  "Last 50 h": 50,
  "Last 200 h": 200,
  All: undefined,
};

function Oil({ logs, profile }: { logs: Logs; profile: OilProfile | undefined }) {
  const wide = useWide();
  const [range, setRange] = useState<(typeof RANGES)[number]>("Last 50 h");
  if (!profile) return <Text className="text-voice">This aircraft has no engine, so it has no oil log.</Text>;
  if (logs.problem) return <Text className="font-mid text-clay">{logs.problem}</Text>;
  if (!logs.trends) return <Text className="text-voice">Working out the oil consumption …</Text>;
  const [left, right] = logs.trends;
  const sides = left && right && compareOilUse(left.trend, right.trend);
  return (
    <View className="gap-4">
      {sides && <JudgementCard judgement={sides} />}
      {logs.trends.map(({ engine, trend }) => (
        <View key={engine ?? ""} className="gap-2">
          <Heading className="text-lg">
            {engine ? `Oil, ${engine} engine` : "Oil level and additions"}
          </Heading>
          <OilPlot trend={trend} profile={profile} lastH={HOURS[range]} width={wide ? 720 : 354} />
          <Uses trend={trend} profile={profile} />
        </View>
      ))}
      <Choice title="How far back" options={RANGES} value={range} onChange={setRange} />
    </View>
  );
}

function Uses({ trend, profile }: { trend: OilTrend; profile: OilProfile }) {
  const last = trend.use.at(-1);
  if (trend.tooFew || !last) return <Text className="text-voice">{trend.tooFew ?? "No reading yet."}</Text>;
  const { overall, recent, usualFlightH } = trend;
  const judged = judgeOilUse(trend, last.levelQt, profile.minimumQt);
  const forecast =
    recent && usualFlightH && profile.minimumQt !== undefined
      ? forecastOil(last.levelQt, profile.minimumQt, recent, usualFlightH)
      : undefined;
  return (
    <View className="gap-2">
      <View className="flex-row flex-wrap gap-x-6 gap-y-1">
        {recent && (
          <Figure
            label="Recent"
            value={`${formatNumber(recent.perH, 2)} qt/h`}
            more={`${formatNumber(Math.max(0, recent.low), 2)} to ${formatNumber(recent.high, 2)}`}
          />
        )}
        {overall && (
          <Figure
            label="Overall"
            value={`${formatNumber(overall.perH, 2)} qt/h`}
            more={`${overall.readings} readings`}
          />
        )}
        <Figure
          label="Last reading"
          value={`${formatNumber(last.levelQt, 1)} qt`}
          more={last.at.slice(0, 10)}
        />
      </View>
      {judged && <JudgementCard judgement={judged} />}
      {!judged && forecast && usualFlightH && <Text>{forecastText(forecast, usualFlightH)}</Text>}
      {trend.faults.map((fault) => (
        <Text
          key={fault.at}
          className="text-sm text-clay"
        >{`${fault.at.slice(0, 10)}: ${fault.reason}`}</Text>
      ))}
    </View>
  );
}

function Figure({ label, value, more }: { label: string; value: string; more: string }) {
  return (
    <View>
      <Text className="text-sm text-voice">{label}</Text>
      <Text className="font-strong text-xl">{value}</Text>
      <Text className="text-sm text-voice">{more}</Text>
    </View>
  );
}

const asLogged = (text: string) => `Discrepancy logged: ${text}`;

/** Logs oil added outside a preflight. */
function OilOutsidePreflight({ aircraft, onLogged }: { aircraft: KnownAircraft; onLogged: () => void }) {
  const dispatch = useAppDispatch();
  const [logged, setLogged] = useState("");
  const [open, setOpen] = useState(false);
  const { type, aircraft: own } = aircraft.bundle;
  const form = useOilAddition(type.oil, type.engines, () => undefined, 1);
  const log = () => {
    const { registration } = own;
    const wrong = dispatch(recordPutIn(type, { type: "oil.added", data: { ...form.added, registration } }));
    setLogged([`${formatNumber(form.added.qt, 1)} qt logged.`, ...wrong.map(asLogged)].join(" "));
    setOpen(false);
    onLogged();
  };
  return (
    <View className="gap-3">
      {logged !== "" && (
        <Text role="status" className="rounded-lg bg-stone px-3 py-2 font-mid">
          {logged}
        </Text>
      )}
      {open ? (
        <>
          <AddOilForm form={form} />
          <Button className="min-h-16" onPress={log}>
            Oil added: log it
          </Button>
        </>
      ) : (
        <Button textClassName="text-base" onPress={() => setOpen(true)}>
          Log oil added outside a preflight
        </Button>
      )}
    </View>
  );
}

/** Logs fuel added outside a preflight. */
function FuelOutsidePreflight({ aircraft, onLogged }: { aircraft: KnownAircraft; onLogged: () => void }) {
  const dispatch = useAppDispatch();
  const [logged, setLogged] = useState("");
  const { bundle } = aircraft;
  const { registration } = bundle.aircraft;
  if (!bundle.type.fuel) return <Text className="text-voice">This aircraft has no tanks.</Text>;
  return (
    <View className="gap-3">
      <Heading className="text-lg">Refuel outside a preflight</Heading>
      {logged !== "" && (
        <Text role="status" className="rounded-lg bg-stone px-3 py-2 font-mid">
          {logged}
        </Text>
      )}
      <Refuel
        key={logged}
        type={bundle.type}
        registration={registration}
        onUplift={(uplift) => {
          const data = { ...uplift, registration };
          const wrong = dispatch(recordPutIn(bundle.type, { type: "fuel.uplifted", data }));
          setLogged(
            [
              `${formatNumber(uplift.amount, 1)} ${uplift.unit} logged. The next preflight checks it against the dipstick.`,
              ...wrong.map(asLogged),
            ].join(" "),
          );
          onLogged();
        }}
      />
    </View>
  );
}

interface TablesProps {
  registration: string;
  fluid: FluidRow["fluid"];
  onTaken: () => void;
}

/** CSV import and export of a log. */
function Tables({ registration, fluid, onTaken }: TablesProps) {
  const [importFluids] = useImportFluidsMutation();
  const [message, setMessage] = useState("");
  const [faults, setFaults] = useState<{ name: string; list: CsvFault[] }>({ name: "", list: [] });
  const save = async () => {
    try {
      saveBlob(`${registration.toLowerCase()}-${fluid}-log.csv`, await api.fluidCsv(registration, fluid));
      setMessage("");
    } catch {
      setMessage("No network: the CSV file is made by the server. Try again when you are online.");
    }
  };
  const add = async () => {
    const file = await pickTextFile(".csv,text/csv");
    if (!file) return;
    const { data, error } = await importFluids({ fluid, table: file.text });
    if (!data) {
      setMessage(
        error && "reached" in error && error.reached
          ? error.message
          : "The server cannot be reached. Nothing was imported. Try again.",
      );
      return;
    }
    setMessage(`${file.name}: ${outcomeText(data)}`);
    setFaults({ name: file.name, list: data.faults });
    onTaken();
  };
  return (
    <View className="gap-2">
      <Heading className="text-lg">{`CSV file of the ${fluid} log`}</Heading>
      <View className="flex-row gap-2">
        <Button
          className="flex-1"
          textClassName="text-base"
          label={`Export CSV of the ${fluid} log`}
          onPress={() => void save()}
        >
          Export CSV
        </Button>
        <Button
          className="flex-1"
          textClassName="text-base"
          label={`Import CSV into the ${fluid} log`}
          onPress={() => void add()}
        >
          Import CSV
        </Button>
      </View>
      {message !== "" && (
        <Text role="status" className="rounded-lg bg-stone px-3 py-2 font-mid" testID="log-message">
          {message}
        </Text>
      )}
      <CsvFaults name={faults.name} faults={faults.list} />
    </View>
  );
}

function outcomeText({ taken, repeated, faults }: ImportOutcome): string {
  const parts = [
    `${taken} ${taken === 1 ? "entry" : "entries"} imported`,
    ...(repeated > 0 ? [`${repeated} already in the log`] : []),
    ...(faults.length > 0 ? [`${faults.length} not imported`] : []),
  ];
  return `${parts.join(", ")}.`;
}

const ENTRY: Record<FluidRow["entry"], string> = {
  dip: "dipped",
  sight: "sight glass",
  measured: "measured",
  uplift: "added",
  burn: "burnt",
  level: "dipstick",
  added: "added",
};
const SHOWN = 40;

function Lines({ logs, fluid }: { logs: Logs; fluid: FluidRow["fluid"] }) {
  return (
    <View className="gap-1">
      <Heading className="text-lg">Latest entries</Heading>
      {!logs.whole && (
        <Text className="text-sm text-voice">No server connection: only entries saved on this device.</Text>
      )}
      {logs.rows.length === 0 && <Text className="text-voice">{`No ${fluid} log entries yet.`}</Text>}
      {logs.rows.slice(0, SHOWN).map((row) => (
        <View
          key={`${row.at}${row.entry}${row.part ?? ""}${row.amount}`}
          className="flex-row justify-between gap-3 border-b-2 border-stone py-1"
        >
          <Text className="text-sm">{`${dayText(row.at)}${row.hours === undefined ? "" : `, ${formatNumber(row.hours, 1)} h`}`}</Text>
          <Text className="shrink text-right font-mid text-sm">
            {`${row.part ? `${row.part} ` : ""}${ENTRY[row.entry]} ${formatNumber(row.amount, 1)} ${row.unit}${row.grade ? `, ${row.grade}` : ""}`}
          </Text>
        </View>
      ))}
      {logs.rows.length > SHOWN && (
        <Text className="text-sm text-voice">{`and ${formatNumber(logs.rows.length - SHOWN)} more`}</Text>
      )}
    </View>
  );
}
