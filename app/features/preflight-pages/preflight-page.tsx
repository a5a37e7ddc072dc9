import { useLocalSearchParams } from "expo-router";
import { type ComponentType, lazy, Suspense } from "react";

type Pages = typeof import("./pages");

/** One page of a walk, out of the one piece of code that has them all. `engine`: where the address names one. */
export function walkPage(name: keyof Pages) {
  const Page = lazy(async () => ({
    default: (await import("./pages"))[name] as unknown as ComponentType<{ id: string; engine?: string }>,
  }));
  return function WalkPage() {
    const { id, engine } = useLocalSearchParams<{ id: string; engine?: string }>();
    return (
      <Suspense fallback={null}>
        <Page id={id} {...(engine && { engine })} />
      </Suspense>
    );
  };
}

/** One page of an aircraft that is about to fly: out of the same piece of code, for they share its arithmetic. */
export function aircraftPage(name: "LoadingScreen" | "DepartureScreen" | "CarryScreen") {
  const Page = lazy(async () => ({ default: (await import("./pages"))[name] }));
  return function AircraftPage() {
    const { registration } = useLocalSearchParams<{ registration: string }>();
    return (
      <Suspense fallback={null}>
        <Page registration={registration} />
      </Suspense>
    );
  };
}
