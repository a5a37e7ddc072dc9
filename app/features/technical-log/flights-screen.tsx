import { type CsvFault, can } from "@cravix/contract/client";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import { formatNumber } from "@cravix/core/units/format";
import { useState } from "react";
import { View } from "react-native";
import { api } from "../../device/api";
import { pickTextFile, saveBlob } from "../../device/platform/pick-file";
import { useImportFlightsMutation } from "../../store/server/records-api";
import { useCrew } from "../../store/server/server-state";
import { clockText, dayText } from "../../ui/day-and-time";
import { useFormsSoon } from "../../ui/form/form-library";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { type Airworthiness, NoAirworthinessRecord, useAirworthiness, useLocalEvents } from "../due";
import { CsvFaults } from "../fuel";
import { FlightForm } from "./flight-form";
import { type ShownLine, useFlights } from "./use-flights";

/** Technical log of one aircraft, newest entry first, and the form for the next one. */
export function FlightsScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Flights aircraft={aircraft} />}</AircraftFrame>
  );
}

function Flights({ aircraft }: { aircraft: KnownAircraft }) {
  const papers = useAirworthiness(aircraft.bundle);
  if (!papers) return <NoAirworthinessRecord registration={aircraft.bundle.aircraft.registration} />;
  return <TechnicalLog aircraft={aircraft} papers={papers} />;
}

function TechnicalLog({ aircraft, papers }: { aircraft: KnownAircraft; papers: Airworthiness }) {
  useFormsSoon();
  const { bundle } = aircraft;
  const { registration } = bundle.aircraft;
  const wide = useWide();
  const events = useLocalEvents(bundle);
  const { lines, away, more, reload } = useFlights(registration, events);
  const [importFlights] = useImportFlightsMutation();
  const [writing, setWriting] = useState(false);
  const [correcting, setCorrecting] = useState<ShownLine>();
  const me = aircraft.crew.find((member) => member.id === aircraft.crewId);
  const mayCorrect = can(me, "flight.correct");
  const [logged, setLogged] = useState("");
  const [problem, setProblem] = useState("");
  const [faults, setFaults] = useState<{ name: string; list: CsvFault[] }>({ name: "", list: [] });
  const { meters } = papers.onFile.record;
  const save = async (kind: "csv" | "pdf") => {
    setProblem("");
    try {
      saveBlob(
        `${registration}-technical-log.${kind}`,
        await (kind === "csv" ? api.flightCsv(registration) : api.flightsPdf(registration)),
      );
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const add = async () => {
    const file = await pickTextFile(".csv,text/csv");
    if (!file) return;
    setProblem("");
    const { data, error } = await importFlights({ registration, table: file.text });
    if (!data) {
      setProblem(
        error && "reached" in error && error.reached
          ? error.message
          : "The server cannot be reached. Nothing was imported. Try again when you are online.",
      );
      return;
    }
    const { taken, repeated, faults: bad } = data;
    setLogged(
      `${file.name}: ${taken} flights imported, ${repeated} already in the log, ${bad.length} not imported.`,
    );
    setFaults({ name: file.name, list: bad });
  };
  const form = (
    <FlightForm
      key={correcting?.id ?? "new"}
      correcting={correcting}
      aircraft={aircraft}
      papers={papers.onFile}
      lines={lines ?? []}
      onLogged={(words) => {
        setWriting(false);
        setCorrecting(undefined);
        setLogged(words);
        reload();
      }}
      onCancel={() => {
        setWriting(false);
        setCorrecting(undefined);
      }}
    />
  );
  if ((writing || correcting) && !wide) return form;
  return (
    <Screen
      back={`/aircraft/${registration}`}
      actions={
        !wide && (
          <Button
            tone="primary"
            className="min-h-16"
            textClassName="text-xl"
            testID="primary"
            onPress={() => setWriting(true)}
          >
            Log a flight
          </Button>
        )
      }
    >
      <PageHead title={`${registration} technical log`}>{`${registration}: technical log`}</PageHead>
      {logged !== "" && (
        <Text role="status" className="mt-2 rounded-lg bg-stone px-3 py-2 font-mid">
          {logged}
        </Text>
      )}
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-2"}>
        <View className={wide ? "flex-[1.6] gap-2" : "gap-2"}>
          {away && (
            <Text className="text-sm">
              No network: only flights logged on this device are shown. Totals are the last ones from the
              server.
            </Text>
          )}
          {!lines && <Text className="text-voice">Fetching the log …</Text>}
          {lines?.map((line) => (
            <Line
              key={line.id}
              line={line}
              meters={meters}
              {...(mayCorrect && !line.struck && { onCorrect: () => setCorrecting(line) })}
            />
          ))}
          {lines?.length === 0 && !away && <Text className="text-voice">No flight is logged yet.</Text>}
          {more && (
            <Button className="self-start px-5" textClassName="text-base" onPress={more}>
              Earlier flights
            </Button>
          )}
          <View className="mt-2 flex-row flex-wrap gap-2">
            <Button className="self-start px-5" textClassName="text-base" onPress={() => void save("csv")}>
              Export CSV
            </Button>
            {mayCorrect && (
              <Button className="self-start px-5" textClassName="text-base" onPress={() => void add()}>
                Import CSV
              </Button>
            )}
            <Button className="self-start px-5" textClassName="text-base" onPress={() => void save("pdf")}>
              Export PDF
            </Button>
          </View>
          {problem !== "" && <Text role="alert">{problem}</Text>}
          {faults.list.length > 0 && <CsvFaults name={faults.name} faults={faults.list} />}
        </View>
        {wide && <View className="flex-1">{form}</View>}
      </View>
    </Screen>
  );
}

/** One flight: time, places, crew, meter increments. */
function Line({
  line,
  meters,
  onCorrect,
}: {
  line: ShownLine;
  meters: readonly RecordMeter[];
  onCorrect?: () => void;
}) {
  const crew = useCrew();
  const name = (id: string) => crew.find((member) => member.id === id)?.name ?? id;
  const read = meters.flatMap(({ id, decimals }) => {
    const meter = line.meters[id];
    return meter ? [`${formatNumber(meter.out, decimals)} to ${formatNumber(meter.in, decimals)}`] : [];
  });
  const counted = meters.flatMap(({ id, name: words, kind }) => {
    const n = line.counts[id];
    return isCounted(kind) && n ? [`${words.toLowerCase()}: ${n}`] : [];
  });
  return (
    <View
      className={`rounded-xl bg-stone px-3 py-2 ${line.struck ? "opacity-60" : ""}`}
      testID={`flight-${line.id}`}
    >
      <View className="flex-row flex-wrap items-baseline justify-between gap-x-3">
        <Text className="font-strong">{`${dayText(line.off)}, ${clockText(line.off)} to ${clockText(line.on)}`}</Text>
        <Text className="font-strong">{read.join(", ")}</Text>
      </View>
      <Text className={line.struck ? "line-through" : ""}>
        {[
          line.ground
            ? `${line.from}, ground run`
            : line.from === line.to
              ? line.from
              : `${line.from} to ${line.to}`,
          name(line.pilot),
          ...(line.crew ?? []).map(name),
        ].join(" · ")}
      </Text>
      <View className="flex-row items-center justify-between gap-3">
        <Text className="shrink text-sm text-voice">
          {[
            ...counted,
            ...(line.night ? [`landings at night: ${line.night.landings}`] : []),
            ...(line.struck ? ["struck out"] : line.corrections > 0 ? ["corrected"] : []),
            ...(line.here ? ["saved on this device, to send"] : []),
            ...(line.remarks ? [line.remarks] : []),
          ].join(" · ")}
        </Text>
        {onCorrect && (
          <Button
            tone="bare"
            className="px-0"
            textClassName="text-base"
            label={`Correct the flight of ${dayText(line.off)}, ${clockText(line.off)}`}
            onPress={onCorrect}
          >
            Correct
          </Button>
        )}
      </View>
    </View>
  );
}
