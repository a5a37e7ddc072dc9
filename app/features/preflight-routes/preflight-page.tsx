import { useLocalSearchParams } from "expo-router";
import { type ComponentType, lazy, Suspense } from "react";

type Pages = typeof import("./pages");

/** A preflight page from the common chunk. `engine`: from the address. */
export function preflightPage(name: keyof Pages) {
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

/** The plan of the next flight, from the same chunk. */
export function planPage() {
  const Page = lazy(async () => ({ default: (await import("./pages")).PlanScreen }));
  return function PlanPage() {
    const { aircraft } = useLocalSearchParams<{ aircraft?: string }>();
    return (
      <Suspense fallback={null}>
        <Page {...(aircraft && { registration: aircraft })} />
      </Suspense>
    );
  };
}

/** A planning page of an aircraft, from the same chunk because it shares the calculations. */
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
