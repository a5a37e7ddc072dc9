import type { Item, Phase } from "@cravix/core/aircraft/aircraft-type";
import { itemsOf } from "@cravix/core/checklist/list/list-places";
import { type ReactNode, useMemo } from "react";
import { ScrollView, View } from "react-native";
import { PlanView } from "../../ui/aircraft/plan-view";
import { ProgressLine } from "../../ui/aircraft/progress-line";
import { useWide } from "../../ui/use-wide";
import { BriefingPanel, TaxiPanel, WindPanel } from "../departure";
import { BatteryBar } from "../electrical";
import { FluidsPanel } from "../fluids";
import type { Acts, LoadedPreflight } from "../open-preflight";
import { PaceNote } from "../pace";
import { PairBar } from "../pair";
import { RunUpPanel } from "../run-up";
import { beadsFor } from "./beads";
import { PreflightHeader } from "./header";
import { ItemList } from "./item-list";
import { StationPanel } from "./station-panel";

interface StepFrameProps {
  preflight: LoadedPreflight;
  acts: Acts;
  item: Item;
  body: ReactNode;
  actions: ReactNode;
  /** Drawing of a reading, in place of the plan on a wide screen. */
  drawing?: ReactNode;
  /** Use of limited space on a phone: plan with a short answer, or answer only. */
  roomFor: "the place" | "the answer";
  /** Parts of a card, for reading aloud. */
  parts?: readonly Item[];
}

/** Frame of every preflight step: header, plan, content, answers within thumb reach. */
export function StepFrame(props: StepFrameProps) {
  const { preflight, acts, item, body, actions, drawing, roomFor, parts } = props;
  const wide = useWide();
  const { progress, phase, list } = preflight;
  const toPhase = (target: Phase) => {
    const items = itemsOf(list, target);
    const next = items.find((i) => !preflight.state.answers[i.id]) ?? items[0];
    if (next) acts.visit(next.id);
  };
  const head = (
    <View className="gap-1 px-[18px] pt-2">
      <PreflightHeader preflight={preflight} />
      <ProgressLine progress={progress} current={phase} onPress={toPhase} />
    </View>
  );
  const notes = (
    <View className="gap-1 px-[18px]">
      <BatteryBar preflight={preflight} />
      <PairBar preflight={preflight} item={item} parts={parts} acts={acts} />
      <PaceNote preflight={preflight} acts={acts} stationId={item.station} />
    </View>
  );
  if (wide)
    return (
      <View className="h-full bg-paper" role="main">
        {head}
        {notes}
        <View className="min-h-0 flex-1 flex-row gap-2 pb-3">
          <View className="w-[36%] pl-3">
            {phase === "run-up" || phase === "line-up" ? (
              <ScrollView className="flex-1 px-2" tabIndex={0}>
                <StepPanel preflight={preflight} />
              </ScrollView>
            ) : drawing ? (
              <View className="flex-1 items-center justify-center">{drawing}</View>
            ) : (
              <Plan preflight={preflight} acts={acts} />
            )}
          </View>
          <View className="w-[28%] border-x-2 border-stone px-2">
            <ItemList preflight={preflight} acts={acts} />
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
  // The plan is shown for items with a place on it; documents, cockpit and boarding have none.
  const place = list.stations.find((station) => station.id === item.station);
  const onPlan = phase === "lap" || phase === "fluids" || place?.role === "approach";
  const offPlan = phase === "papers" || phase === "cockpit" || phase === "board";
  const above =
    roomFor === "the answer" ? undefined : onPlan ? (
      <Plan preflight={preflight} acts={acts} />
    ) : offPlan ? (
      <StationPanel preflight={preflight} acts={acts} item={item} />
    ) : undefined;
  return (
    <View className="h-full bg-paper" role="main">
      {head}
      {notes}
      {/* All parts of a card take precedence over a large plan. */}
      {above && <View className={`flex-1 ${parts ? "min-h-[110px]" : "min-h-[180px]"}`}>{above}</View>}
      <ScrollView
        key={item.id}
        className={above ? (parts ? "shrink grow-0" : "max-h-[46%] grow-0") : "flex-1"}
        tabIndex={0}
      >
        {body}
      </ScrollView>
      {actions}
    </View>
  );
}

function Plan({ preflight, acts }: Pick<StepFrameProps, "preflight" | "acts">) {
  const beads = useMemo(() => beadsFor(preflight), [preflight]);
  const { plan } = preflight.list.type;
  return plan ? <PlanView plan={plan} beads={beads} onPress={acts.visitStation} /> : null;
}

/** Panel of a whole phase: fuel so far, run-up, wind. */
export function StepPanel({ preflight }: { preflight: LoadedPreflight }) {
  const { item, list } = preflight;
  const role = list.stations.find(({ id }) => id === item?.station)?.role;
  if (item?.topic === "briefing") return <BriefingPanel preflight={preflight} />;
  if (role === "taxi") return <TaxiPanel preflight={preflight} />;
  if (preflight.phase === "fluids") return <FluidsPanel preflight={preflight} />;
  if (preflight.phase === "run-up") return <RunUpPanel preflight={preflight} />;
  if (preflight.phase === "line-up") return <WindPanel preflight={preflight} />;
  return null;
}
