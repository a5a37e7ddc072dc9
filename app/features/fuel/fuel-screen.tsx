import { formatNumber } from "@cravix/core/units/format";
import { wordsOfWalk } from "@cravix/core/verdict/judges/fuel-input";
import { checkUplifts } from "@cravix/core/verdict/judges/judge-uplifts";
import { useState } from "react";
import { View } from "react-native";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Toggle } from "../../ui/input/toggle";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type Acts,
  type FoldedPreflight,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";
import { FuelEndurance } from "./fuel-endurance";
import { FuelQuantity } from "./fuel-quantity";
import { Refuel } from "./refuel";
import { GroundAndNight } from "./slope-and-overnight";

const PARTS = ["How much", "Enough?", "Refuel", "Slope, overnight"] as const;
type Part = (typeof PARTS)[number];

/** Today's fuel on one page: quantity, endurance, refuelling, slope and overnight conditions. */
export function FuelQuantityScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Desk folded={folded} />}</PreflightFrame>;
}

function Desk({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const wide = useWide();
  const [part, setPart] = useState<Part>("How much");
  const back = () => goBack(`/preflight/${preflight.state.id}`);
  const shown =
    wide && part === "How much"
      ? (["How much", "Enough?"] as const)
      : wide && part === "Enough?"
        ? (["How much", "Enough?"] as const)
        : [part];
  return (
    <Screen back={`/preflight/${preflight.state.id}`}>
      <PageHead title={`${preflight.list.registration} fuel`}>Fuel</PageHead>
      <View className="my-3 flex-row flex-wrap gap-2" role="group" aria-label="Fuel pages">
        {PARTS.map((name) => (
          <Toggle
            key={name}
            on={part === name}
            className={wide ? "min-w-40 px-6" : "min-w-[40%] flex-1"}
            onPress={() => setPart(name)}
          >
            {name}
          </Toggle>
        ))}
      </View>
      <View className={shown.length > 1 ? "flex-row gap-8" : ""}>
        {shown.map((name) => (
          <View key={name} className={shown.length > 1 ? "flex-1" : ""}>
            <PartOf part={name} preflight={preflight} acts={acts} onDone={back} />
          </View>
        ))}
      </View>
    </Screen>
  );
}

function PartOf({
  part,
  preflight,
  acts,
  onDone,
}: {
  part: Part;
  preflight: LoadedPreflight;
  acts: Acts;
  onDone: () => void;
}) {
  switch (part) {
    case "How much":
      return <FuelQuantity preflight={preflight} acts={acts} />;
    case "Enough?":
      return <FuelEndurance preflight={preflight} acts={acts} />;
    case "Slope, overnight":
      return <GroundAndNight preflight={preflight} acts={acts} />;
    case "Refuel":
      return (
        <View className="gap-4">
          <Receipts preflight={preflight} />
          <Refuel
            type={preflight.list.type}
            registration={preflight.list.registration}
            onUplift={(uplift) => {
              acts.uplifted(uplift);
              onDone();
            }}
          />
          <Text className="text-sm text-voice">
            After refuelling, the preflight asks for the dips and drains again. The earlier readings stay in
            the log.
          </Text>
        </View>
      );
  }
}

/** Receipts of this preflight compared with the dipstick. */
function Receipts({ preflight }: { preflight: LoadedPreflight }) {
  const checked = checkUplifts(preflight.list, preflight.state);
  const words = wordsOfWalk(preflight.list, preflight.state);
  if (checked.length === 0) return null;
  return (
    <View className="gap-2">
      <Heading className="text-lg">Fuel added during this preflight</Heading>
      {checked.map(({ uplift, reconciled, open }) => (
        <View key={uplift.eventId} className="rounded-xl bg-stone px-3 py-2">
          <Text className="font-strong">{`${formatNumber(uplift.amount, 1)} ${uplift.unit}, ${uplift.tankId ?? "several tanks"}`}</Text>
          <Text className={reconciled && !reconciled.agrees ? "font-mid text-clay" : ""}>
            {open ??
              (reconciled?.agrees
                ? `Dipstick: ${words.say(reconciled.measuredL)} more. It agrees with the receipt.`
                : `Dipstick: ${words.say(reconciled?.measuredL ?? 0)} more. ${reconciled?.instead[0]?.why ?? "This does not agree with the receipt: dip again."}`)}
          </Text>
        </View>
      ))}
    </View>
  );
}
