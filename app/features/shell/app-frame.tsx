import { type ReactNode, useEffect, useState } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { View } from "react-native";
import { SafeAreaProvider } from "react-native-safe-area-context";
import { Provider } from "react-redux";
import { hearInstallOffer } from "../../device/install";
import { DeviceError } from "../../device/log/database";
import { cacheInterface } from "../../device/service-worker";
import { restore, restoreRest } from "../../store/restore";
import { sendAgain } from "../../store/state/sync-actions";
import { newVersionWaits } from "../../store/state/version-slice";
import { createStore } from "../../store/store";
import { Text } from "../../ui/text";
import { PageFailed } from "./page-failed";

hearInstallOffer();
/** One store for the whole app, loaded before anything is drawn. */
const store = createStore();
const restoring = restore(store.dispatch);
// Usually restored before the first render, so that the page is drawn once.
let restoredAlready = false;
restoring.then(
  () => {
    restoredAlready = true;
  },
  // Errors are shown by the page.
  () => undefined,
);

/** Runs background work once the first page is visible. */
const whenIdle: (work: () => void) => void =
  typeof requestIdleCallback === "function"
    ? (work) => requestIdleCallback(work, { timeout: 4000 })
    : (work) => setTimeout(work, 1500);

/** Frame of every page: store, stored state, error fallback. */
export function AppFrame({ children }: { children: ReactNode }) {
  const [problem, setProblem] = useState("");
  const [restored, setRestored] = useState(() => restoredAlready);
  useEffect(() => {
    restoring.then(
      () => setRestored(true),
      (error) =>
        setProblem(
          error instanceof DeviceError
            ? error.message
            : "This browser does not let anything be saved (private window, or storage switched off). Open Cravix in an ordinary window.",
        ),
    );
    const again = () => store.dispatch(sendAgain());
    window.addEventListener?.("online", again);
    return () => window.removeEventListener?.("online", again);
  }, []);
  // After the first page has been drawn.
  useEffect(() => {
    if (!restored) return;
    void restoreRest(store.dispatch).catch(() => undefined);
    whenIdle(() => void cacheInterface(() => store.dispatch(newVersionWaits())));
  }, [restored]);
  return (
    <Provider store={store}>
      <SafeAreaProvider>
        <View className="h-full flex-1 bg-paper">
          {problem !== "" ? (
            <View role="alert" className="p-6">
              <Text className="text-lg">{problem}</Text>
            </View>
          ) : restored ? (
            <ErrorBoundary FallbackComponent={PageFailed}>{children}</ErrorBoundary>
          ) : null}
        </View>
      </SafeAreaProvider>
    </Provider>
  );
}
