import { burnFor, checkLoad, faultWords, formatNumber, fuelDensity, type PlannedLoad } from "@cravix/core";
import { useMemo } from "react";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import type { KnownAircraft } from "./aircraft-frame";

/** How it is loaded, as it was planned; the dip says later what is really in the tanks. */
export function LoadToday({ aircraft: { bundle, plan } }: { aircraft: KnownAircraft }) {
  const { loading: profile, type } = bundle;
  const { load, flightMin } = plan;
  const check = useMemo(
    () => (profile && load ? checked(profile, load, type, flightMin) : undefined),
    [profile, load, type, flightMin],
  );
  if (!profile) return null;
  const outside = check !== undefined && check.faults.length > 0;
  const takeOff = check?.points.find(({ name }) => name === "take-off");
  return (
    <View className="gap-2" testID="load-today">
      <Heading className="mt-2 text-lg">How is it loaded?</Heading>
      {check && takeOff ? (
        <View className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark grade={outside ? "stop" : "within limits"} size={20} />
          </View>
          <Text className={`shrink ${outside ? "font-strong text-clay" : ""}`}>
            {outside
              ? check.faults.map(faultWords).join(" ")
              : `${formatNumber(takeOff.kg)} kg at take-off, inside all the way.`}
          </Text>
        </View>
      ) : (
        <Text className="text-voice">Nothing is entered: mass and balance are not judged.</Text>
      )}
      <NavLink
        href={`/aircraft/${bundle.aircraft.registration}/loading`}
        className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
      >
        <Text className="font-strong">Loading</Text>
      </NavLink>
    </View>
  );
}

function checked(
  profile: NonNullable<KnownAircraft["bundle"]["loading"]>,
  { stations, litres = {} }: PlannedLoad,
  { fuel }: KnownAircraft["bundle"]["type"],
  minutes: number,
) {
  const kgPerL = fuelDensity(fuel?.grades?.[0] ?? "100LL", 15);
  return checkLoad(profile, { stations, litres, kgPerL }, burnFor(fuel, minutes));
}
