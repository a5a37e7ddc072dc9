import type { AircraftBundle } from "@cravix/contract/client";
import type { Preferences } from "@cravix/core/aircraft/preferences";
import { Redirect } from "expo-router";
import type { ReactNode } from "react";
import { PageNotFound } from "../shell";
import { type AircraftInHand, useAircraft } from "./use-aircraft";

export type KnownAircraft = AircraftInHand & { bundle: AircraftBundle; preferences: Preferences };

/** Common frame of pages before a preflight: requires a crew member and the aircraft, or says what is missing. */
export function AircraftFrame({
  registration,
  children,
}: {
  registration: string;
  children: (aircraft: KnownAircraft) => ReactNode;
}) {
  const aircraft = useAircraft(registration);
  const { ready, crewId, bundle, preferences, server } = aircraft;
  if (ready && !crewId) return <Redirect href="/" />;
  if (bundle && preferences) return children({ ...aircraft, bundle, preferences });
  return (
    <PageNotFound
      title={registration}
      head={
        server === "not reached"
          ? `No network, and ${registration} is not saved on this device`
          : server === "reached"
            ? `${registration} is not one of your group's aircraft`
            : `Fetching ${registration} …`
      }
    />
  );
}
