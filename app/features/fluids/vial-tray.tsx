import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { approvedGrades } from "@cravix/core/verdict/judges/fuel-input";
import { Pressable, View } from "react-native";
import { Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";
import { usualColour, Vial } from "./drawings/vial";

/** All drains of this aircraft as a row of samples: taken ones with results, and the next. */
export function VialTray({ preflight, item, acts }: { preflight: LoadedPreflight; item: Item; acts: Acts }) {
  const { list, state } = preflight;
  const drains = list.items.filter((i) => i.kind === "sample");
  const usual = usualColour(approvedGrades(list)[0]);
  const clean = drains.filter((drain) => state.answers[drain.id]?.outcome === "checked").length;
  return (
    <View className="gap-1" testID="vials">
      <View className="flex-row flex-wrap">
        {drains.map((drain) => {
          const last = state.samples[drain.id]?.at(-1);
          const here = drain.id === item.id;
          // Answered without a sample (older preflights): shown as clean.
          const shown =
            last ?? (state.answers[drain.id]?.outcome === "checked" ? { look: "clean" as const } : undefined);
          return (
            <Pressable
              key={drain.id}
              role="button"
              aria-label={`${drain.title}: ${shown?.look ?? "not taken yet"}`}
              aria-current={here ? "step" : undefined}
              onPress={() => acts.visit(drain.id)}
              className={`h-[68px] w-[48px] items-center justify-center rounded-lg ${here ? "bg-chock" : ""}`}
            >
              <Vial sample={shown} usual={usual} />
            </Pressable>
          );
        })}
      </View>
      <Text className="text-sm text-voice">{`${clean} of ${drains.length} drains clean`}</Text>
    </View>
  );
}
