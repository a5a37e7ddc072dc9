import { type ComponentType, lazy, Suspense } from "react";
import { View } from "react-native";
import { Screen } from "./screen";
import { Heading, Text } from "./text";

/**
 * A screen that is not needed for the walk itself and is fetched when it is opened, so that the walk is there the sooner. The service worker keeps
 * it on the device with everything else; where it has not come yet and there is no network, that is said.
 */
export function lazyScreen<P extends object>(load: () => Promise<ComponentType<P>>) {
  const Loaded = lazy(async () => ({ default: await load().catch(() => NotHere) }));
  return function LazyScreen(props: P) {
    return (
      <Suspense fallback={<View className="h-full bg-paper" />}>
        <Loaded {...props} />
      </Suspense>
    );
  };
}

function NotHere() {
  return (
    <Screen>
      <Heading level={1} className="mt-8 text-2xl">
        This page is not on this device yet
      </Heading>
      <Text>It needs the network once; after that it is kept. Nothing that you answered is lost.</Text>
    </Screen>
  );
}
