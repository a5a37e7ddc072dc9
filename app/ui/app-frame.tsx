import AtkinsonNext from "@expo-google-fonts/atkinson-hyperlegible-next/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf";
import AtkinsonNextSemiBold from "@expo-google-fonts/atkinson-hyperlegible-next/600SemiBold/AtkinsonHyperlegibleNext_600SemiBold.ttf";
import AtkinsonNextBold from "@expo-google-fonts/atkinson-hyperlegible-next/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf";
import { useFonts } from "expo-font";
import { type ReactNode, useEffect, useState } from "react";
import { View } from "react-native";
import { SafeAreaProvider } from "react-native-safe-area-context";
import { Provider } from "react-redux";
import { DeviceError } from "../device/log/database";
import { registerServiceWorker } from "../device/service-worker";
import { restore } from "../store/restore";
import { createStore } from "../store/store";
import { sendAgain } from "../store/sync/sync-actions";
import { Text } from "./text";

const FONT_WAIT_MS = 800;

/** What stands round every page: the store, the fonts, and what the device remembers. */
export function AppFrame({ children }: { children: ReactNode }) {
  const [store] = useState(createStore);
  const [trouble, setTrouble] = useState("");
  const [fonts, fontError] = useFonts({ AtkinsonNext, AtkinsonNextSemiBold, AtkinsonNextBold });
  const [waited, setWaited] = useState(false);
  const [restored, setRestored] = useState(false);
  useEffect(() => {
    registerServiceWorker();
    restore(store.dispatch).then(
      () => setRestored(true),
      (error) =>
        setTrouble(
          error instanceof DeviceError
            ? error.message
            : "This browser does not let anything be kept (private window, or storage switched off). Open Cravix in an ordinary window.",
        ),
    );
    const again = () => store.dispatch(sendAgain());
    window.addEventListener?.("online", again);
    return () => window.removeEventListener?.("online", again);
  }, [store]);
  // A letter of another shape is read as well; a page that waits for its letters is not.
  useEffect(() => {
    const timer = setTimeout(() => setWaited(true), FONT_WAIT_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <Provider store={store}>
      <SafeAreaProvider>
        <View className="h-full flex-1 bg-paper">
          {trouble !== "" ? (
            <View role="alert" className="p-6">
              <Text className="text-lg">{trouble}</Text>
            </View>
          ) : restored && (fonts || fontError || waited) ? (
            children
          ) : null}
        </View>
      </SafeAreaProvider>
    </Provider>
  );
}
