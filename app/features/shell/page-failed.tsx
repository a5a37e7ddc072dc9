import { useEffect, useState } from "react";
import type { FallbackProps } from "react-error-boundary";
import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";

/** Whether a part of the program could not be fetched, rather than failed. */
export function isNotFetched(error: Error): boolean {
  return (
    error.name === "AsyncRequireError" ||
    /loading (module|chunk|script)|dynamically imported|failed to fetch|importing a module/i.test(
      error.message,
    )
  );
}

/**
 * What is seen in place of a page that failed. It asks nothing of the store or of the page's own parts: what has failed may be among them. What was
 * answered is on the device's disk before it is on the screen, so nothing is lost by opening anew.
 */
export function PageFailed({ error: thrown }: FallbackProps) {
  const error = thrown instanceof Error ? thrown : new Error(String(thrown));
  const fetched = !isNotFetched(error);
  // The address of what failed: without its pages the router goes back to the first one.
  const [address] = useState(() => window.location.href);
  useEffect(() => {
    console.error(thrown);
  }, [thrown]);
  return (
    <View role="main" className="h-full flex-1 items-center bg-paper">
      <View className="w-full max-w-3xl flex-1 gap-3 px-[18px] pt-8" role="alert" testID="page-failed">
        <PageHead className="text-2xl">
          {fetched ? "This page stopped working" : "This page could not be loaded"}
        </PageHead>
        <Text>
          {fetched
            ? "It is our fault. Everything that you answered is saved on this device."
            : "There is no network, or Cravix was updated in the meantime. Everything you answered is saved on this device."}
        </Text>
        <Text>
          {fetched
            ? "Try again. If it fails again, go to Aircraft and resume there: an unfinished preflight continues where you left it."
            : "Try again when you are online. You can continue an unfinished preflight offline."}
        </Text>
        {fetched && <Text className="text-sm text-voice">{error.message.slice(0, 200)}</Text>}
      </View>
      <View className="w-full items-center bg-deck">
        <View className="w-full max-w-3xl flex-row gap-3 px-4 py-3">
          <Button tone="deck" className="min-h-16 flex-1" onPress={() => window.location.assign("/")}>
            Go to Aircraft
          </Button>
          <Button
            tone="primary"
            className="min-h-16 flex-1"
            testID="primary"
            // Opened anew: what failed in memory, or was not fetched, is asked for again.
            onPress={() => window.location.assign(address)}
          >
            Try again
          </Button>
        </View>
      </View>
    </View>
  );
}
