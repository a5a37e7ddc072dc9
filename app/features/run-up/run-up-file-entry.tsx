import type { TraceColumn, TraceReading } from "@cravix/contract/trace";
import { type UnitKind, unitsFor } from "@cravix/contract/trace-columns";
import { channelName } from "@cravix/core/run-up";
import { type Dispatch, useReducer } from "react";
import { View } from "react-native";
import { pickFile } from "../../device/platform/pick-file";
import { readTraceFile } from "../../device/workers/run-up-work";
import { Alert } from "../../ui/alert";
import { Button } from "../../ui/input/button";
import { Toggle } from "../../ui/input/toggle";
import { Heading, Text } from "../../ui/text";
import { isOf, saveConfirmedUnits, withToldUnits } from "./confirmed-units";
import { type ReadFile, shownFile, type TraceFileStep, traceFile } from "./trace-file";
import { AmbiguousUnit } from "./unit-question";

const PLAIN = [
  "time",
  "rpm",
  "map",
  "fuelFlow",
  "oilPressure",
  "oilTemperature",
  "volts",
  "amps",
  "suction",
] as const;
type Field = NonNullable<TraceColumn["field"]>;

function fieldName(field: Field): string {
  return field === "time" ? "Time" : channelName(field);
}

function usedAs({ field, unit }: TraceColumn): string {
  return field ? `${fieldName(field)}${unit ? `, ${unit}` : ": which unit?"}` : "not used";
}

/** Loads an engine monitor file: columns are recognised or chosen, then read as a trace. */
export function FileWay({
  registration,
  cylinders,
  onRead,
}: {
  registration: string;
  cylinders: number;
  onRead: (read: TraceReading, name: string) => void;
}) {
  const [state, step] = useReducer(traceFile, { name: "none" });
  const shown = shownFile(state);
  const busy = state.name === "reading";
  const pick = async () => {
    const picked = await pickFile(".csv,.txt,.log,text/csv,text/plain");
    if (!picked) return;
    step({ type: "picked" });
    try {
      const read = await withToldUnits(registration, picked, await readTraceFile(picked));
      step({ type: "read", file: picked, read });
    } catch (error) {
      step({ type: "failed", problem: `${picked.name} could not be read: ${(error as Error).message}` });
    }
  };
  return (
    <View className="gap-3">
      <Text>
        An engine monitor file with named columns, a time in each line. It stays on this device, whatever its
        size.
      </Text>
      <Button
        tone={shown ? "paper" : "primary"}
        className="min-h-16"
        textClassName="text-xl"
        disabled={busy}
        onPress={pick}
        testID="pick-trace"
      >
        {busy ? "Reading …" : shown ? "Choose another file" : "Choose a file"}
      </Button>
      {state.name === "failed" && <Alert>{state.problem}</Alert>}
      {shown && (
        <FileColumns
          registration={registration}
          cylinders={cylinders}
          shown={shown}
          busy={busy}
          step={step}
          onRead={onRead}
        />
      )}
    </View>
  );
}

/** What was read, which column is what, and the question of unknown units. */
function FileColumns({
  registration,
  cylinders,
  shown: { file, read, columns, editing },
  busy,
  step,
  onRead,
}: {
  registration: string;
  cylinders: number;
  shown: ReadFile;
  busy: boolean;
  step: Dispatch<TraceFileStep>;
  onRead: (read: TraceReading, name: string) => void;
}) {
  const ready =
    columns.some(({ field, unit }) => field === "rpm" && unit) &&
    columns.some(({ field }) => field === "time");
  const open = read.questions.filter(({ kind }) => !columns.some((c) => c.told && isOf(c, kind)));
  const tell = (kind: UnitKind, unit: string) => {
    const told = columns.map((c) => (isOf(c, kind) ? { ...c, unit, told: true as const } : c));
    step({ type: "units told", columns: told });
    void saveConfirmedUnits(registration, told);
  };
  return (
    <>
      <Text testID="file-read">
        {`${file.name}: ${read.lines.toLocaleString("en")} lines.`}
        {read.stoppedAfterS === undefined
          ? ""
          : " The first hour of running was read; the rest is the flight."}
      </Text>
      {read.faults.map((fault) => (
        <View key={`${fault.row}${fault.column}${fault.expected}`} className="border-l-4 border-chock pl-2">
          <Text>{`Line ${fault.row}${fault.column ? `, ${fault.column}` : ""}: expected ${fault.expected}.`}</Text>
        </View>
      ))}
      {read.questions.map((question) => (
        <AmbiguousUnit key={question.kind} question={question} columns={columns} onTell={tell} />
      ))}
      <Heading className="text-lg">Columns</Heading>
      <View>
        {columns.map((column) => (
          <View key={column.index} className="border-b-2 border-stone py-1">
            <View className="flex-row items-center gap-2">
              <Text className="w-[42%] font-mid">{column.header || `column ${column.index + 1}`}</Text>
              <Button
                className="flex-1"
                textClassName="text-base"
                label={`${column.header}: ${usedAs(column)}`}
                onPress={() =>
                  step({ type: "editing", column: editing === column.index ? undefined : column.index })
                }
              >
                {usedAs(column)}
              </Button>
            </View>
            {editing === column.index && (
              <ColumnChoice
                column={column}
                cylinders={cylinders}
                onSet={(change) => step({ type: "assigned", column: column.index, change })}
                onDone={() => step({ type: "editing", column: undefined })}
              />
            )}
          </View>
        ))}
      </View>
      <Button
        tone="primary"
        className="min-h-20"
        textClassName="text-2xl"
        disabled={!ready || busy || open.length > 0}
        testID="read-trace"
        onPress={async () => {
          const last = columns === read.columns ? read : await readTraceFile(file, columns);
          onRead(last, file.name);
        }}
      >
        Find the run-up
      </Button>
      {!ready ? (
        <Text className="text-clay">Time and rpm are missing: choose their columns above.</Text>
      ) : (
        open.length > 0 && <Text className="text-clay">Choose the missing units above first.</Text>
      )}
    </>
  );
}

function ColumnChoice({
  column,
  cylinders,
  onSet,
  onDone,
}: {
  column: TraceColumn;
  cylinders: number;
  onSet: (change: Partial<TraceColumn>) => void;
  onDone: () => void;
}) {
  const fields: Field[] = [
    ...PLAIN,
    ...Array.from({ length: cylinders }, (_, i): Field => `egt${i + 1}`),
    ...Array.from({ length: cylinders }, (_, i): Field => `cht${i + 1}`),
  ];
  const { field } = column;
  return (
    <View className="my-2 gap-2 rounded-xl bg-stone p-2">
      <Text className="text-sm text-voice">Content of this column</Text>
      <View className="flex-row flex-wrap gap-1.5">
        {fields.map((name) => (
          <Toggle
            key={name}
            on={field === name}
            className="px-2"
            textClassName="text-sm"
            onPress={() => onSet({ field: name, unit: unitsFor(name)[0] as string })}
          >
            {fieldName(name)}
          </Toggle>
        ))}
      </View>
      {field && (
        <>
          <Text className="text-sm text-voice">Unit</Text>
          <View className="flex-row flex-wrap gap-1.5">
            {unitsFor(field).map((unit) => (
              <Toggle
                key={unit}
                on={column.unit === unit}
                className="px-3"
                textClassName="text-sm"
                onPress={() => onSet({ unit })}
              >
                {unit}
              </Toggle>
            ))}
          </View>
        </>
      )}
      <Button textClassName="text-base" onPress={onDone}>
        Done
      </Button>
    </View>
  );
}
