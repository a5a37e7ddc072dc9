import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { afterItemId } from "@cravix/core/checklist/list/added-items";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import type { PreflightState } from "@cravix/core/checklist/stream/preflight-state";
import { router } from "expo-router";
import { useState } from "react";
import { View } from "react-native";
import { closePreflight } from "../../store/preflight/sign-preflight";
import { useAppDispatch } from "../../store/state/hooks";
import { Screen } from "../../ui/frame/screen";
import { GradeMark } from "../../ui/grade-mark";
import { Button } from "../../ui/input/button";
import { Keypad, pressKey } from "../../ui/input/keypad";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import {
  type FoldedPreflight,
  PreflightFrame,
  useLoadedPreflight,
  usePreflightActions,
} from "../open-preflight";

/** After-flight items of this preflight: the type's own, plus putting back what was really removed. */
export function afterItems(list: ComposedList, state: PreflightState): Item[] {
  const notTaken = new Set(
    list.items
      .filter((i) => i.ledger && "out" in i.ledger && state.answers[i.id]?.outcome !== "checked")
      .map((i) => afterItemId(i.id)),
  );
  return (list.after ?? []).filter((item) => !notTaken.has(item.id));
}

/** After the flight: covers and locks back on, tied down, hours and additions logged. */
export function AfterScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <After folded={folded} />}</PreflightFrame>;
}

function After({ folded }: { folded: FoldedPreflight }) {
  const preflight = useLoadedPreflight(folded);
  const acts = usePreflightActions(preflight);
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { list, state } = folded;
  const items = afterItems(list, state);
  const open = items.filter((item) => !state.answers[item.id]);
  const [typed, setTyped] = useState("");
  const measuring = open[0]?.kind === "measure" ? open[0] : undefined;
  const place = (item: Item) => list.stations.find((station) => station.id === item.station)?.name;
  const put = (item: Item) => acts.checked(item);
  return (
    <Screen
      back="/"
      actions={
        measuring?.reading ? (
          <>
            <Text className="text-center font-strong text-xl text-deck-ink">
              {`${measuring.title} ${typed || "…"} ${measuring.reading.unit}`}
            </Text>
            <Keypad
              decimals={measuring.reading.decimals}
              negative={false}
              onKey={(key) =>
                setTyped(
                  pressKey(typed, key, { decimals: measuring.reading?.decimals ?? 0, negative: false }),
                )
              }
            />
            <Button
              tone="primary"
              className="min-h-16"
              testID="primary"
              disabled={typed === ""}
              onPress={() => {
                acts.reading(measuring, Number(typed));
                setTyped("");
              }}
            >
              Confirm reading
            </Button>
          </>
        ) : (
          <Button
            tone="primary"
            className="min-h-20"
            textClassName="text-xl"
            testID="primary"
            onPress={() => {
              if (open[0]) put(open[0]);
              else {
                dispatch(closePreflight(state.id));
                router.replace("/");
              }
            }}
          >
            {open[0] ? (open[0].done ?? open[0].title) : "Finish after-flight checks"}
          </Button>
        )
      }
    >
      <PageHead className="mt-2" title={`${list.registration} after the flight`}>
        {open.length === 0 ? `${list.registration} is secured` : `After the flight: ${open.length} to do`}
      </PageHead>
      {open.length > 0 && open.length < items.length && (
        <View className="mt-2 items-start">
          <Button
            textClassName="text-base"
            onPress={() => {
              dispatch(closePreflight(state.id));
              router.replace(`/aircraft/${list.registration}/prepare`);
            }}
          >
            Flying again soon: skip the rest
          </Button>
        </View>
      )}
      <View className={wide ? "mt-3 flex-row flex-wrap gap-2" : "mt-3 gap-2"}>
        {items.map((item) => {
          const answer = state.answers[item.id];
          return (
            <View
              key={item.id}
              className={`flex-row items-center gap-3 rounded-xl px-3 py-2 ${wide ? "w-[49%]" : ""} ${answer ? "bg-stone" : "border-2 border-ink"}`}
            >
              {answer ? (
                <GradeMark grade="within limits" size={20} />
              ) : (
                <View className="h-5 w-5 rounded-full border-2 border-ink" />
              )}
              <View className="shrink grow">
                <Text className="font-strong">{item.title}</Text>
                <Text className="text-sm text-voice">
                  {answer?.value
                    ? `${answer.value} ${item.reading?.unit ?? ""}`
                    : [place(item), item.good].filter(Boolean).join(": ")}
                </Text>
              </View>
              {!answer && item.kind !== "measure" && (
                <Button label={`Done: ${item.title}`} onPress={() => put(item)}>
                  Done
                </Button>
              )}
            </View>
          );
        })}
      </View>
    </Screen>
  );
}
