import { useEffect, useState } from "react";
import type { FallbackProps } from "react-error-boundary";
import { View } from "react-native";
import { Button } from "../../ui/input/button";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";

/** True if part of the app could not be loaded, as opposed to an error in it. */
export function isNotFetched(error: Error): boolean {
  return (
    error.name === "AsyncRequireError" ||
    /loading (module|chunk|script)|dynamically imported|failed to fetch|importing a module/i.test(
      error.message,
    )
  );
}

/**
 * Error page, independent of the store and the page's own code, which may have failed. Answers are stored before they are shown,
 * so reloading loses nothing.
 */
export function PageFailed({ error: thrown }: FallbackProps) {
  const error = thrown instanceof Error ? thrown : new Error(String(thrown));
  const fetched = !isNotFetched(error);
  // Address of the failed page; without its pages the router would go to the first one.
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
            // Reload, so that failed state and missing code are loaded again.
            onPress={() => window.location.assign(address)}
          >
            Try again
          </Button>
        </View>
      </View>
    </View>
  );
}
