import { entryText, type LedgerEntry } from "@cravix/core/ledger/fold-ledger";
import { View } from "react-native";
import { Screen } from "../../ui/frame/screen";
import { goBack } from "../../ui/go-back";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  type LoadedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

/** Everything removed, switched on or opened: out now, still to be removed, and put back. */
export function LedgerScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Ledger folded={folded} />}</PreflightFrame>;
}

function Ledger({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const wide = useWide();
  const { list, ledger, state } = preflight;
  const go = (entry: LedgerEntry) => {
    if (!state.signed) acts.visit(entry.state === "out" ? (entry.backItemId ?? entry.itemId) : entry.itemId);
    goBack(`/preflight/${state.id}`);
  };
  const out = ledger.filter((entry) => entry.state === "out");
  const waits = ledger.filter((entry) => entry.state === "waits");
  const back = ledger.filter((entry) => entry.state === "back");
  return (
    <Screen back={`/preflight/${state.id}`}>
      <PageHead className="mt-2" title={`${list.registration} items to put back`}>
        {`${list.registration}: ${out.length === 0 ? "nothing to put back" : `${out.length} to put back`}`}
      </PageHead>
      <Text className="mt-1 text-sm text-voice">
        Everything that came off, was switched on, opened or moved during this preflight. All of it must be
        put back before you accept the aircraft.
      </Text>
      <Part title="To put back" none="Nothing is off, on, open or moved.">
        {out.map((entry) => (
          <Button
            key={entry.itemId}
            className={`border-ink bg-chock ${wide ? "self-start px-5" : ""}`}
            textClassName="text-base text-left text-on-chock"
            onPress={() => go(entry)}
          >
            {entryText(list, entry)}
          </Button>
        ))}
      </Part>
      <Part title="Still to come in this checklist" none="Nothing more to remove.">
        {waits.map((entry) => (
          <Button key={entry.itemId} textClassName="text-base text-left" onPress={() => go(entry)}>
            {wordsAhead(preflight, entry)}
          </Button>
        ))}
      </Part>
      <Part title="Stowed or put back" none="Nothing yet.">
        {back.map((entry) => (
          <View key={entry.itemId} className="flex-row justify-between gap-3 border-b-2 border-stone py-2">
            <Text className="shrink">{pieces(entry)}</Text>
            <Text className="shrink text-right text-voice">{entry.stow ?? BACK[entry.how]}</Text>
          </View>
        ))}
      </Part>
    </Screen>
  );
}

const ACTION = { off: "removed", on: "switched on", open: "opened", moved: "moved" };
const BACK = { off: "off, stowed", on: "off again", open: "shut", moved: "back" };

function pieces({ thing, count }: LedgerEntry): string {
  return count > 1 ? `${thing} (${count})` : thing;
}

function wordsAhead({ list }: LoadedPreflight, entry: LedgerEntry): string {
  const { how, stationId } = entry;
  return `${pieces(entry)}: ${ACTION[how]} at ${list.stations.find((s) => s.id === stationId)?.name ?? "its station"}`;
}

function Part({ title, none, children }: { title: string; none: string; children: React.ReactNode[] }) {
  return (
    <View className="mt-4 gap-2">
      <Heading className="text-lg">{`${title}: ${children.length}`}</Heading>
      {children.length === 0 ? <Text className="text-voice">{none}</Text> : children}
    </View>
  );
}
