import { ONLY_ENGINE } from "@cravix/core/readings/reading-keys";
import { formatQuantity } from "@cravix/core/units/format";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { AddOilForm, useOilAddition } from "../fluid-logs";
import {
  type FoldedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

/** Logs added oil by engine and grade; afterwards the dipstick is read again. */
export function AddOilScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <AddOil folded={folded} />}</PreflightFrame>;
}

function AddOil({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const { oil: profile, engines } = preflight.list.type;
  const read = (engine: string | undefined) => preflight.judged.oil?.[engine ?? ONLY_ENGINE];
  const suggested = read(engines?.[0])?.addContainers ?? 1;
  const form = useOilAddition(profile, engines, (engine) => read(engine)?.levelQt, suggested);
  const own = read(form.engine);
  const back = () => goBack(`/preflight/${preflight.state.id}`);
  const log = () => {
    acts.oilAdded(form.added);
    back();
  };
  return (
    <Screen
      back={`/preflight/${preflight.state.id}`}
      actions={
        <Button tone="primary" className="min-h-20" textClassName="text-xl" testID="primary" onPress={log}>
          Oil added: log it
        </Button>
      }
    >
      <PageHead title={`${preflight.list.registration} add oil`}>Add oil</PageHead>
      <Text className="mb-3 text-voice">
        {own
          ? `Dipstick reading before adding: ${formatQuantity({ value: own.levelQt, unit: "US qt" })}. ${own.judgement.action ?? ""}`
          : "Dipstick not read yet. Read it before adding oil, and again afterwards."}
      </Text>
      <AddOilForm form={form} />
    </Screen>
  );
}
