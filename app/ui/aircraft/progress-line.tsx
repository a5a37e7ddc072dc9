import { PHASE_NAME } from "@cravix/contract/client";
import type { Phase } from "@cravix/core/aircraft/aircraft-type";
import type { PhaseProgress } from "@cravix/core/checklist/next-item";
import { Pressable, View } from "react-native";
import { Text } from "../text";

/** Names short enough for seven beads on a phone. */
const SHORT_NAME: Record<Phase, string> = {
  ...PHASE_NAME,
  papers: "Docs",
  fluids: "Fuel, oil",
  board: "Board",
};

interface ProgressLineProps {
  progress: PhaseProgress[];
  current: Phase | undefined;
  onPress: (phase: Phase) => void;
}

/** Progress through the preflight: a line with one bead per phase. */
export function ProgressLine({ progress, current, onPress }: ProgressLineProps) {
  return (
    <View role="navigation" aria-label="Steps of this preflight" className="flex-row px-1">
      {progress.map(({ phase, total, answered }, i) => {
        const done = answered === total;
        const here = phase === current;
        return (
          <Pressable
            key={phase}
            role="button"
            aria-label={`${SHORT_NAME[phase]} ${answered}/${total}`}
            aria-current={here ? "step" : undefined}
            onPress={() => onPress(phase)}
            className={`h-[70px] items-center ${here && phase === "lap" ? "flex-[2.15]" : here || phase === "lap" ? "flex-[1.45]" : "flex-1"}`}
          >
            <View className="h-9 w-full flex-row items-center">
              <View className={`h-1 flex-1 ${i === 0 ? "bg-transparent" : "bg-ink"}`} />
              <View
                className={`rounded-full border-ink ${here ? "h-7 w-7 border-[3px] bg-chock" : `h-4 w-4 border-[3px] ${done ? "bg-ink" : "bg-paper"}`}`}
              />
              <View className={`h-1 flex-1 ${i === progress.length - 1 ? "bg-transparent" : "bg-ink"}`} />
            </View>
            {here ? (
              <Text className="text-center font-strong text-sm leading-[17px]">
                {`${SHORT_NAME[phase]}\n`}
                <Text className="text-[length:var(--type-thread)] leading-[15px]">{`${answered}/${total}`}</Text>
              </Text>
            ) : (
              <Text numberOfLines={1} className="text-[length:var(--type-thread)] text-voice">
                {SHORT_NAME[phase]}
              </Text>
            )}
          </Pressable>
        );
      })}
    </View>
  );
}
