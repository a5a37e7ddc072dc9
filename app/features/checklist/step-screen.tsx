import type { Station } from "@cravix/core/aircraft/aircraft-type";
import { partOf } from "@cravix/core/aircraft/part-of";
import { cardOf } from "@cravix/core/cards/card-of";
import { nextFlowStation } from "@cravix/core/checklist/next-item";
import { stationBlockedBy } from "@cravix/core/ledger/blocked-by";
import { useKeepAwake } from "expo-keep-awake";
import { Redirect } from "expo-router";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { useBundle } from "../../store/server/server-state";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { useHeadingFirst, usePageTitle } from "../../ui/page-title";
import { useWide } from "../../ui/use-wide";
import { DrainCard, drawnReading, ReadingDrawing, useDrain } from "../fluids";
import {
  type Acts,
  type FoldedPreflight,
  FoundStep,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
  WritingFrame,
} from "../open-preflight";
import { Actions } from "./answers/actions";
import { MeasurePanel, useMeasure } from "./answers/measure-panel";
import { ObservePanel } from "./answers/observe-panel";
import { BlockedPanel, useBlock } from "./around/blocked-panel";
import { FlowPanel } from "./around/flow-panel";
import { InterruptedPanel } from "./around/interrupted-panel";
import { useInterruptionGuard } from "./around/use-interruption-guard";
import { CardStep } from "./card/card-step";
import { ItemCard } from "./item-card";
import { StepFrame, StepPanel } from "./step-frame";

/** Main preflight screen, from documents to line-up: always one thing to do. */
export function StepScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Step folded={folded} />}</PreflightFrame>;
}

function Step({ folded }: { folded: FoldedPreflight }) {
  useKeepAwake();
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  useInterruptionGuard(preflight, acts);
  usePageTitle(`${preflight.list.registration} preflight`);
  useHeadingFirst();
  const { list, state, item } = preflight;
  if (state.signed || !item) return <Redirect href={`/preflight/${state.id}/verdict`} />;
  if (state.interruptions.some((i) => i.resumedAt === undefined))
    return <InterruptedPanel preflight={preflight} acts={acts} />;
  const flow = nextFlowStation(list, state);
  if (flow) return <FlowStep preflight={preflight} acts={acts} station={flow} />;
  return <ItemStep preflight={preflight} acts={acts} item={item} />;
}

/** A station with a blocked item cannot be done from memory either. */
function FlowStep({
  preflight,
  acts,
  station,
}: {
  preflight: LoadedPreflight;
  acts: Acts;
  station: Station;
}) {
  const { list, state } = preflight;
  const waiting = useMemo(() => stationBlockedBy(list, state, station.id), [list, state, station.id]);
  return waiting ? (
    <BlockedPanel preflight={preflight} item={waiting.item} block={waiting.block} acts={acts} />
  ) : (
    <FlowPanel preflight={preflight} station={station} acts={acts} />
  );
}

interface Shown {
  itemId: string;
  why: boolean;
  /** Set while logging a problem, with a preset text for a wrong count or a known fault. */
  writing?: { preset?: string } | undefined;
}

type ItemStepProps = { preflight: LoadedPreflight; acts: Acts; item: NonNullable<LoadedPreflight["item"]> };

function ItemStep({ preflight, acts, item }: ItemStepProps) {
  const block = useBlock(preflight, item);
  const { list, state } = preflight;
  const card = useMemo(() => (block ? undefined : cardOf(list, state, item)), [block, list, state, item]);
  if (block) return <BlockedPanel preflight={preflight} item={item} block={block} acts={acts} />;
  return card ? (
    <CardStep preflight={preflight} acts={acts} item={item} card={card} />
  ) : (
    <FreeItemStep preflight={preflight} acts={acts} item={item} />
  );
}

function FreeItemStep({ preflight, acts, item }: ItemStepProps) {
  const wide = useWide();
  // State of one item; plan and the rest persist between items.
  const [shown, setShown] = useState<Shown>({ itemId: item.id, why: false });
  const { why, writing } = shown.itemId === item.id ? shown : { why: false, writing: undefined };
  const setWhy = (next: boolean) => setShown({ itemId: item.id, why: next });
  const setWriting = (next: Shown["writing"]) => setShown({ itemId: item.id, why, writing: next });
  const measure = useMeasure(preflight, item, !writing, (value, how) => acts.reading(item, value, how));
  const startWriting = (preset?: string) => setWriting(preset === undefined ? {} : { preset });
  const bundle = useBundle(preflight.list.registration);
  const drain = useDrain(preflight, item, acts, startWriting, !writing);
  const { phase } = preflight;
  const answerable = !writing;
  const choose = (n: number) => {
    if (item.kind === "choice") {
      const choice = item.choices?.[n - 1];
      if (choice) acts.checked(item, choice.value);
    } else if (item.kind === "count") {
      if (n === item.expected) acts.checked(item, String(n));
      else startWriting(`${partOf(item)}: ${n} serviceable, ${item.expected} expected`);
    }
  };
  useShortcuts(
    answerable
      ? {
          u: acts.undo,
          w: () => setWhy(!why),
          l: () => acts.later(item),
          i: () => acts.interrupt(),
          ...(item.kind === "observe"
            ? {
                g: () => startWriting("grown"),
                x: () => acts.observed(item, "gone"),
                Enter: () => startWriting("same"),
              }
            : { f: () => startWriting() }),
          ...(["look", "feel", "set", "remove"].includes(item.kind) && {
            Enter: () => acts.checked(item),
            ...(preflight.state.flowed[item.station] && { m: () => acts.checked(item, undefined, true) }),
          }),
          ...(["choice", "count"].includes(item.kind) &&
            Object.fromEntries([0, 1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => [String(n), () => choose(n)]))),
        }
      : { Escape: () => setWriting(undefined) },
  );

  if (writing && item.kind === "observe")
    return (
      <ObserveStep
        walkId={preflight.state.id}
        item={item}
        seen={writing.preset === "grown" ? "grown" : "same"}
        onBack={() => setWriting(undefined)}
        onLog={(seen, text) => acts.observed(item, seen, text || undefined)}
      />
    );
  if (writing)
    return (
      <FoundStep
        walkId={preflight.state.id}
        item={item}
        preset={writing.preset}
        onBack={() => setWriting(undefined)}
        acts={acts}
      />
    );

  // While a number is entered, it gets the space.
  const typing = item.kind === "measure" && measure.value !== undefined;
  const drawn = item.kind === "measure" && drawnReading(preflight, item) !== undefined;
  const panelLeft = wide && (phase === "run-up" || phase === "line-up");
  const body = (
    <View className="gap-3 px-[18px] pb-3">
      <ItemCard
        preflight={preflight}
        item={item}
        why={why || (wide && item.kind !== "measure")}
        tight={typing || (drawn && !wide) || (item.kind === "sample" && drain.advice.step !== "take")}
      />
      {item.kind === "sample" && <DrainCard preflight={preflight} item={item} acts={acts} drain={drain} />}
      {item.kind === "measure" && <MeasurePanel preflight={preflight} item={item} measure={measure} />}
      {!panelLeft && !typing && item.kind !== "sample" && <StepPanel preflight={preflight} />}
    </View>
  );
  const actions = (
    <Actions
      preflight={preflight}
      item={item}
      acts={acts}
      measure={measure}
      drain={drain}
      wide={wide}
      why={why}
      onWhy={() => setWhy(!why)}
      onFound={startWriting}
    />
  );
  return (
    <StepFrame
      preflight={preflight}
      acts={acts}
      item={item}
      body={body}
      actions={actions}
      drawing={
        drawn ? (
          <ReadingDrawing
            preflight={preflight}
            item={item}
            value={measure.value}
            lastValue={bundle?.lastReadings.find((r) => r.key === item.reading?.key)?.value}
            onSet={measure.setValue}
            large
          />
        ) : undefined
      }
      roomFor={item.kind === "measure" || item.kind === "sample" ? "the answer" : "the place"}
    />
  );
}

function ObserveStep({
  walkId,
  item,
  seen,
  onBack,
  onLog,
}: {
  walkId: string;
  item: ItemStepProps["item"];
  seen: "same" | "grown";
  onBack: () => void;
  onLog: (seen: "same" | "grown", measure: string) => void;
}) {
  // The draft survives a reload.
  const { value: measure, change, drop } = usePersistedState(`observe draft:${walkId}:${item.id}`, "");
  const log = () => {
    onLog(seen, measure.trim());
    drop();
  };
  return (
    <WritingFrame onBack={onBack} onLog={log} disabled={false}>
      <ObservePanel item={item} seen={seen} measure={measure} onMeasure={(text) => change(() => text)} />
    </WritingFrame>
  );
}
