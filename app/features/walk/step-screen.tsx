import { itemsOf, partOf, type Station, stationBlockedBy, stationToFlow } from "@cravix/core";
import { useKeepAwake } from "expo-keep-awake";
import { Redirect } from "expo-router";
import { useMemo, useState } from "react";
import { ScrollView, View } from "react-native";
import { useKept } from "../../device/log/use-kept";
import { useBundle } from "../../store/server/server-state";
import { PlanView } from "../../ui/aircraft/plan-view";
import { Thread } from "../../ui/aircraft/thread";
import { Button } from "../../ui/input/button";
import { useShortcuts } from "../../ui/input/use-shortcuts";
import { useHeadingFirst, usePageTitle } from "../../ui/page-title";
import { useWide } from "../../ui/use-wide";
import { BatteryBar } from "../electrical/battery-bar";
import { DrainCard } from "../fluids/drain-card";
import { FluidsPanel } from "../fluids/fluids-panel";
import { drawnReading, ReadingDrawing } from "../fluids/reading-drawing";
import { useDrain } from "../fluids/use-drain";
import { WindPanel } from "../line-up/wind-panel";
import { PaceNote } from "../pace/pace-note";
import { PairBar } from "../pair/pair-bar";
import { RunUpPanel } from "../run-up/run-up-panel";
import { NotKept } from "../sync/kept-mark";
import { Actions } from "./answers/actions";
import { FoundPanel, useFoundDraft } from "./answers/found-panel";
import { MeasurePanel, useMeasure } from "./answers/measure-panel";
import { ObservePanel } from "./answers/observe-panel";
import { BlockedPanel, useBlock } from "./around/blocked-panel";
import { FlowPanel } from "./around/flow-panel";
import { InterruptedPanel } from "./around/interrupted-panel";
import { useInterruptionGuard } from "./around/use-interruption-guard";
import { beadsFor } from "./beads";
import { WalkHeader } from "./header";
import { ItemCard } from "./item-card";
import { ItemList } from "./item-list";
import { StationPanel } from "./station-panel";
import { type Acts, useActs } from "./use-acts";
import { useWalk, type Walk } from "./use-preflight";
import { type FoldedWalk, WalkFrame } from "./walk-frame";

/** One screen carries the walk from the papers to the line-up: always the one thing to do now. */
export function StepScreen({ id }: { id: string }) {
  return <WalkFrame id={id}>{(folded) => <Step folded={folded} />}</WalkFrame>;
}

function Step({ folded }: { folded: FoldedWalk }) {
  useKeepAwake();
  const walk = useWalk(folded);
  const acts = useActs(walk);
  useInterruptionGuard(walk, acts);
  usePageTitle(`${walk.list.registration} preflight`);
  useHeadingFirst();
  const { list, state, item } = walk;
  if (state.signed || !item) return <Redirect href={`/preflight/${state.id}/verdict`} />;
  if (state.interruptions.some((i) => i.resumedAt === undefined))
    return <InterruptedPanel walk={walk} acts={acts} />;
  const flow = stationToFlow(list, state);
  if (flow) return <FlowStep walk={walk} acts={acts} station={flow} />;
  return <ItemStep walk={walk} acts={acts} item={item} />;
}

/** A station that holds something that has to wait is not done from memory either. */
function FlowStep({ walk, acts, station }: { walk: Walk; acts: Acts; station: Station }) {
  const { list, state } = walk;
  const waiting = useMemo(() => stationBlockedBy(list, state, station.id), [list, state, station.id]);
  return waiting ? (
    <BlockedPanel walk={walk} item={waiting.item} block={waiting.block} acts={acts} />
  ) : (
    <FlowPanel walk={walk} station={station} acts={acts} />
  );
}

interface Shown {
  itemId: string;
  why: boolean;
  /** Absent: not writing anything up; otherwise the words that a wrong count or a known thing puts there. */
  writing?: { preset?: string } | undefined;
}

type ItemStepProps = { walk: Walk; acts: Acts; item: NonNullable<Walk["item"]> };

function ItemStep({ walk, acts, item }: ItemStepProps) {
  const block = useBlock(walk, item);
  return block ? (
    <BlockedPanel walk={walk} item={item} block={block} acts={acts} />
  ) : (
    <FreeItemStep walk={walk} acts={acts} item={item} />
  );
}

function FreeItemStep({ walk, acts, item }: ItemStepProps) {
  const wide = useWide();
  // What belongs to one item goes with it; the plan and the rest stay on the screen from item to item.
  const [shown, setShown] = useState<Shown>({ itemId: item.id, why: false });
  const { why, writing } = shown.itemId === item.id ? shown : { why: false, writing: undefined };
  const setWhy = (next: boolean) => setShown({ itemId: item.id, why: next });
  const setWriting = (next: Shown["writing"]) => setShown({ itemId: item.id, why, writing: next });
  const measure = useMeasure(walk, item, !writing, (value, how) => acts.reading(item, value, how));
  const startWriting = (preset?: string) => setWriting(preset === undefined ? {} : { preset });
  const bundle = useBundle(walk.list.registration);
  const drain = useDrain(walk, item, acts, startWriting, !writing);
  const { progress, phase, list } = walk;
  const toPhase = (target: NonNullable<typeof phase>) => {
    const items = itemsOf(list, target);
    const next = items.find((i) => !walk.state.answers[i.id]) ?? items[0];
    if (next) acts.visit(next.id);
  };
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
            ...(walk.state.flowed[item.station] && { m: () => acts.checked(item, undefined, true) }),
          }),
          ...(["choice", "count"].includes(item.kind) &&
            Object.fromEntries([0, 1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => [String(n), () => choose(n)]))),
        }
      : { Escape: () => setWriting(undefined) },
  );

  if (writing && item.kind === "observe")
    return (
      <ObserveStep
        walkId={walk.state.id}
        item={item}
        seen={writing.preset === "grown" ? "grown" : "same"}
        onBack={() => setWriting(undefined)}
        onLog={(seen, text) => acts.observed(item, seen, text || undefined)}
      />
    );
  if (writing)
    return (
      <FoundStep
        walkId={walk.state.id}
        item={item}
        preset={writing.preset}
        onBack={() => setWriting(undefined)}
        acts={acts}
      />
    );

  const head = (
    <View className="gap-1 px-[18px] pt-2">
      <WalkHeader walk={walk} />
      <Thread progress={progress} current={phase} onPress={toPhase} />
    </View>
  );
  // While a number is being typed, the number and what it comes to have the room.
  const typing = item.kind === "measure" && measure.value !== undefined;
  const drawn = item.kind === "measure" && drawnReading(walk, item) !== undefined;
  const panelLeft = wide && (phase === "run-up" || phase === "line-up");
  const body = (
    <View className="gap-3 px-[18px] pb-3">
      <ItemCard
        walk={walk}
        item={item}
        why={why || (wide && item.kind !== "measure")}
        tight={typing || (drawn && !wide) || (item.kind === "sample" && drain.advice.step !== "take")}
      />
      {item.kind === "sample" && <DrainCard walk={walk} item={item} acts={acts} drain={drain} />}
      {item.kind === "measure" && <MeasurePanel walk={walk} item={item} measure={measure} />}
      {!panelLeft && !typing && item.kind !== "sample" && <StepPanel walk={walk} />}
    </View>
  );
  const notes = (
    <View className="gap-1 px-[18px]">
      <BatteryBar walk={walk} />
      <PairBar walk={walk} item={item} acts={acts} />
      <PaceNote walk={walk} acts={acts} stationId={item.station} />
    </View>
  );
  const actions = (
    <Actions
      walk={walk}
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
  if (wide)
    return (
      <View className="h-full bg-paper" role="main">
        {head}
        {notes}
        <View className="min-h-0 flex-1 flex-row gap-2 pb-3">
          <View className="w-[36%] pl-3">
            {panelLeft ? (
              <ScrollView className="flex-1 px-2" tabIndex={0}>
                <StepPanel walk={walk} />
              </ScrollView>
            ) : drawn ? (
              <View className="flex-1 items-center justify-center">
                <ReadingDrawing
                  walk={walk}
                  item={item}
                  value={measure.value}
                  lastValue={bundle?.lastReadings.find((r) => r.key === item.reading?.key)?.value}
                  onSet={measure.setValue}
                  large
                />
              </View>
            ) : (
              <Plan walk={walk} acts={acts} />
            )}
          </View>
          <View className="w-[28%] border-x-2 border-stone px-2">
            <ItemList walk={walk} acts={acts} />
          </View>
          <View className="min-w-0 flex-1 overflow-hidden pr-3">
            <ScrollView key={item.id} className="flex-1" tabIndex={0}>
              {body}
            </ScrollView>
            <View className="overflow-hidden rounded-2xl">{actions}</View>
          </View>
        </View>
      </View>
    );
  // The plan stands where it says where one is; the papers, the cockpit and the board have no place on it.
  const place = list.stations.find((station) => station.id === item.station);
  const onPlan = phase === "lap" || phase === "fluids" || place?.role === "approach";
  const offPlan = phase === "papers" || phase === "cockpit" || phase === "board";
  const above =
    item.kind === "measure" || item.kind === "sample" ? undefined : onPlan ? (
      <Plan walk={walk} acts={acts} />
    ) : offPlan ? (
      <StationPanel walk={walk} acts={acts} item={item} />
    ) : undefined;
  return (
    <View className="h-full bg-paper" role="main">
      {head}
      {notes}
      {above && <View className="min-h-[180px] flex-1">{above}</View>}
      <ScrollView key={item.id} className={above ? "max-h-[46%] grow-0" : "flex-1"} tabIndex={0}>
        {body}
      </ScrollView>
      {actions}
    </View>
  );
}

function Plan({ walk, acts }: Pick<ItemStepProps, "walk" | "acts">) {
  const beads = useMemo(() => beadsFor(walk), [walk]);
  const { plan } = walk.list.type;
  return plan ? <PlanView plan={plan} beads={beads} onPress={acts.visitStation} /> : null;
}

function StepPanel({ walk }: { walk: Walk }) {
  if (walk.phase === "fluids") return <FluidsPanel walk={walk} />;
  if (walk.phase === "run-up") return <RunUpPanel walk={walk} />;
  if (walk.phase === "line-up") return <WindPanel walk={walk} />;
  return null;
}

function FoundStep({
  walkId,
  item,
  preset,
  onBack,
  acts,
}: {
  walkId: string;
  item: ItemStepProps["item"];
  preset: string | undefined;
  onBack: () => void;
  acts: Acts;
}) {
  const found = useFoundDraft(walkId, item, preset);
  const { draft } = found;
  const log = () => {
    const measure = draft.measure.trim();
    acts.found(item, draft.text.trim(), draft.grade, measure ? { measure } : {});
    found.drop();
    // Withdrawn, the item is asked again, and not what was found there.
    onBack();
  };
  return (
    <WritingFrame onBack={onBack} onLog={log} disabled={draft.text.trim() === ""}>
      <FoundPanel found={found} item={item} />
    </WritingFrame>
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
  // What is being written here survives a reload, as what was found does.
  const { value: measure, change, drop } = useKept(`observe draft:${walkId}:${item.id}`, "");
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

function WritingFrame({
  children,
  onBack,
  onLog,
  disabled,
}: {
  children: React.ReactNode;
  onBack: () => void;
  onLog: () => void;
  disabled: boolean;
}) {
  useShortcuts({ Enter: disabled ? undefined : onLog, Escape: onBack });
  return (
    <View className="h-full items-center bg-paper" role="main">
      <ScrollView
        className="w-full max-w-3xl flex-1"
        contentContainerClassName="gap-2 px-[18px] py-5"
        tabIndex={0}
      >
        {/* Who is writing must hear here, not a screen later, that the device does not take it. */}
        <NotKept />
        {children}
      </ScrollView>
      <View className="w-full items-center bg-deck">
        <View className="w-full max-w-3xl flex-row gap-3 px-4 py-3">
          <Button tone="deck" className="min-h-20 flex-1" onPress={onBack}>
            Back
          </Button>
          <Button
            tone="primary"
            className="min-h-20 flex-[1.7]"
            textClassName="text-2xl"
            disabled={disabled}
            onPress={onLog}
            testID="primary"
          >
            Log it
          </Button>
        </View>
      </View>
    </View>
  );
}
