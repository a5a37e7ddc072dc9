import { blockedBy } from "@cravix/core/ledger/blocked-by";
import type { RunUpEngine } from "@cravix/core/run-up-entry";
import { formatNumber } from "@cravix/core/units/format";
import { View } from "react-native";
import { Alert } from "../../ui/alert";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { ManualRunUpEntry, type TypedNumbers } from "./manual/manual-run-up-entry";
import { backToPreflight, type Desk, engineSuffix, readMeasured } from "./run-up-desk";
import { FileWay } from "./run-up-file-entry";
import type { RunUpPage } from "./run-up-pages";
import { RunUpSourcePicker } from "./run-up-source-picker";

/** Where the numbers come from; entering them by hand, or from a file. */
export function EntryPage({ desk, page }: { desk: Desk; page: RunUpPage }) {
  const { preflight, engine, reading, step } = desk;
  const id = preflight.state.id;
  const enter = (numbers: TypedNumbers) => {
    const end = desk.hand.give(numbers);
    if (end.to === "card") step({ type: "emergency", card: { id: end.id, side: end.side, practice: false } });
    if (end.to === "preflight") backToPreflight(desk);
  };
  return (
    <Screen
      actions={
        <View className="flex-row gap-2">
          <Button
            tone="deck"
            className="min-h-16 flex-1"
            onPress={page.name === "sources" ? () => backToPreflight(desk) : () => step({ type: "back" })}
          >
            Back
          </Button>
          <Button
            tone="deck"
            className="min-h-16 flex-1 border-4"
            onPress={() => step({ type: "emergency", card: "list" })}
            testID="emergency"
          >
            Emergency
          </Button>
        </View>
      }
    >
      <PageHead>{titleOf(desk, page)}</PageHead>
      {page.name === "sources" && (
        <Text className="text-sm text-voice">Choose where the numbers come from.</Text>
      )}
      {reading.problem && <Alert>{reading.problem}</Alert>}
      {page.name === "sources" && <Sources desk={desk} />}
      {page.name === "by hand" && (
        <ManualRunUpEntry
          engine={engine}
          draft={`typed run-up:${id}:${engine.name ?? "engine"}`}
          known={page.known}
          onDone={enter}
        />
      )}
      {page.name === "file" && (
        <FileWay
          registration={preflight.list.registration}
          cylinders={engine.profile.cylinders}
          onRead={({ trace }) => void readMeasured(desk, { trace, source: "file" })}
        />
      )}
    </Screen>
  );
}

function titleOf(desk: Desk, { name }: RunUpPage): string {
  if (name === "by hand") return "Enter by hand";
  return name === "file" ? "Load a file" : `Run-up${engineSuffix(desk)}`;
}

function Sources({ desk: { preflight, engine, reading, planted, step } }: { desk: Desk }) {
  const block = blockedBy(preflight.list, preflight.state, engine.baseItem);
  return (
    <>
      {block && (
        <Alert frame="line" className="my-2">
          {block.why}
        </Alert>
      )}
      <RunUpSourcePicker
        engine={engine}
        planted={planted}
        onWay={(source) => {
          reading.begin();
          step({ type: "source", source });
        }}
        onProcedure={(procedure) => {
          reading.begin();
          step({ type: "procedure", procedure });
        }}
      />
      {engine.densityAltitudeFt !== undefined && (
        <DensityAltitude {...engine} ft={engine.densityAltitudeFt} />
      )}
    </>
  );
}

function DensityAltitude({
  ft,
  settingHpa,
  lean,
}: Pick<RunUpEngine, "settingHpa" | "lean"> & { ft: number }) {
  const pressure = settingHpa === undefined ? "at standard pressure" : `at ${formatNumber(settingHpa)} hPa`;
  return (
    <Text className="mt-3 text-sm text-voice">
      {`Density altitude about ${formatNumber(ft)} ft ${pressure}${lean ? ": lean before checking the drops" : ""}.`}
    </Text>
  );
}
