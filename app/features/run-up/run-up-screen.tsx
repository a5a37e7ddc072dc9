import { type RunUpEngine, runUpEngine } from "@cravix/core/run-up-entry";
import { useKeepAwake } from "expo-keep-awake";
import { useMemo, useReducer } from "react";
import { Screen } from "../../ui/frame/screen";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
} from "../open-preflight";
import { EntryPage } from "./entry-page";
import { EmergencyPages } from "./live/emergency-pages";
import { MonitorPage } from "./live/monitor-page";
import { TypedResult } from "./manual/typed-result";
import { useTypedRunUp } from "./manual/use-manual-run-up";
import { useSimulatedFault } from "./practice/simulated-fault";
import { ProcedureEntry } from "./procedure-entry";
import { ReadResult } from "./read/read-result";
import { useReadRunUp } from "./read/use-read-run-up";
import { useRecordRunUp } from "./read/use-record";
import type { Desk } from "./run-up-desk";
import { FIRST_PAGE, runUpPages } from "./run-up-pages";

/** Run-up page: from the monitor, a file, or by hand; read, judged, explained, and recorded with one tap. */
export function RunUpScreen({ id, engine }: { id: string; engine?: string }) {
  return <PreflightFrame id={id}>{(folded) => <Engine folded={folded} name={engine} />}</PreflightFrame>;
}

function Engine({ folded, name }: { folded: FoldedPreflight; name: string | undefined }) {
  useKeepAwake();
  const preflight = useLoadedPreflight(folded);
  const engine = useMemo(() => runUpEngine(preflight, name), [preflight, name]);
  if (!engine)
    return (
      <Screen back={`/preflight/${preflight.state.id}`}>
        <PageHead>No run-up on file</PageHead>
        <Text>
          This type has no run-up figures on file. Its items are answered one by one in the preflight.
        </Text>
      </Screen>
    );
  return <RunUpEngineEntry preflight={preflight} engine={engine} />;
}

function RunUpEngineEntry({ preflight, engine }: { preflight: LoadedPreflight; engine: RunUpEngine }) {
  const wide = useWide();
  const planted = useSimulatedFault();
  const [state, step] = useReducer(runUpPages, FIRST_PAGE);
  const { page, round } = state;
  const hand = useTypedRunUp(preflight, engine);
  const reading = useReadRunUp(preflight, engine);
  const { read } = reading;
  const write = useRecordRunUp(preflight);
  const desk: Desk = { preflight, engine, state, step, planted, wide, hand, reading, write };
  if (state.emergency) return <EmergencyPages desk={desk} />;
  if (page.name === "procedure")
    return (
      <ProcedureEntry
        preflight={preflight}
        engine={engine}
        procedure={page.procedure}
        planted={planted}
        wide={wide}
        onBack={() => step({ type: "back" })}
        onEmergency={() => step({ type: "emergency", card: "list" })}
      />
    );
  if (page.name === "monitor") return <MonitorPage key={round} desk={desk} page={page} />;
  if (hand.typed) return <TypedResult desk={desk} typed={hand.typed} />;
  if (read && page.name === "sources") return <ReadResult key={read.at} desk={desk} read={read} />;
  return <EntryPage key={page.name} desk={desk} page={page} />;
}
