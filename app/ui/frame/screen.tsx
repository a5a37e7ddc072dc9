import ArrowLeft from "lucide-react-native/icons/arrow-left";
import type { ReactNode } from "react";
import { ScrollView, View } from "react-native";
import { goBack } from "../go-back";
import { Button } from "../input/button";
import { usePalette } from "../paint/use-palette";
import { Text } from "../text";
import { useWide } from "../use-wide";

/**
 * Page layout. On a phone actions and back are at the bottom; on a wide screen back is at the top and actions are no wider than
 * their text.
 */
export function Screen({
  children,
  actions,
  back,
  wideWidth = "max-w-[1240px]",
}: {
  children: ReactNode;
  actions?: ReactNode;
  /** Parent page, if the page was opened by a link. */
  back?: string;
  wideWidth?: string;
}) {
  const wide = useWide();
  return (
    <View role="main" className="h-full flex-1 bg-paper">
      {wide && back !== undefined && (
        <View className="w-full flex-row px-6 pt-3">
          <BackButton tone="bare" to={back} />
        </View>
      )}
      <ScrollView className="flex-1" contentContainerClassName="items-center pb-6" tabIndex={0}>
        <View className={`w-full ${wide ? `px-8 pt-4 ${wideWidth}` : "px-[18px] pt-3"}`}>{children}</View>
      </ScrollView>
      {wide
        ? actions && (
            <View className="items-center px-8 pb-4">
              <View className={`w-full flex-row justify-end ${wideWidth}`}>
                <View className="w-full max-w-[560px] gap-2 rounded-2xl bg-deck px-4 py-3">{actions}</View>
              </View>
            </View>
          )
        : (actions || back !== undefined) && (
            <View className="flex-row items-end gap-3 bg-deck px-4 py-3">
              {back !== undefined && (
                <BackButton tone="deck" to={back} className={actions ? "min-h-16" : "flex-1"} />
              )}
              {actions && <View className="min-w-0 flex-1 gap-2">{actions}</View>}
            </View>
          )}
    </View>
  );
}

/** Back button with arrow and label. */
export function BackButton({
  to,
  tone,
  className = "",
}: {
  to: string;
  tone: "deck" | "bare";
  className?: string;
}) {
  const { ink, deckInk } = usePalette();
  return (
    <Button tone={tone} label="Back" className={className} onPress={() => goBack(to)} testID="back">
      <View className="flex-row items-center gap-2">
        <ArrowLeft size={24} color={tone === "deck" ? deckInk : ink} />
        <Text className={`font-strong ${tone === "deck" ? "text-deck-ink" : "text-ink"}`}>Back</Text>
      </View>
    </Button>
  );
}
