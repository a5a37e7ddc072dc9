import { fuelDensity } from "@cravix/core/fuel/grade/fuel-grades";
import { checkLoad } from "@cravix/core/mass-and-balance/check-load";
import type { PlannedLoad } from "@cravix/core/mass-and-balance/loading-profile";
import { faultText } from "@cravix/core/mass-and-balance/loading-text";
import { formatNumber } from "@cravix/core/units/format";
import { burnFor, peopleOfPreflight } from "@cravix/core/verdict/judges/judge-loading";
import { lightOf } from "@cravix/core/weather/light";
import { nightBeginsText } from "@cravix/core/weather/night-begins";
import { useMemo } from "react";
import { View } from "react-native";
import { clockText } from "../../ui/day-and-time";
import { GradeMark } from "../../ui/grade-mark";
import { NavLink } from "../../ui/input/nav-link";
import { Heading, Text } from "../../ui/text";
import type { KnownAircraft } from "../aircraft-frame";

/** Planned mass and balance; the dipstick gives the real fuel later. */
export function DepartureForFlight({ aircraft }: { aircraft: KnownAircraft }) {
  const { bundle, plan } = aircraft;
  const { loading: profile, type } = bundle;
  const { load, flightMin } = plan;
  const people = peopleOfPreflight(plan);
  const check = useMemo(
    () => (profile && load ? checked(profile, load, type, { flightMin, people }) : undefined),
    [profile, load, type, flightMin, people],
  );
  if (!profile) return null;
  const outside = check !== undefined && check.faults.length > 0;
  const open = outside ? undefined : check?.missing[0];
  const takeOff = check?.points.find(({ name }) => name === "take-off");
  return (
    <View className="gap-2" testID="load-today">
      <Heading className="mt-2 text-lg">Mass and balance</Heading>
      {check && takeOff ? (
        <View className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark grade={open ? "ask" : outside ? "stop" : "within limits"} size={20} />
          </View>
          <Text className={`shrink ${outside ? "font-strong text-clay" : ""}`}>
            {open ??
              (outside
                ? check.faults.map(faultText).join(" ")
                : `${formatNumber(takeOff.kg)} kg at take-off, within limits for the whole flight.`)}
          </Text>
        </View>
      ) : (
        <Text className="text-voice">No load entered: mass and balance not checked.</Text>
      )}
      <Daylight aircraft={aircraft} />
      <View className="flex-row flex-wrap gap-2">
        <NavLink
          href={`/aircraft/${bundle.aircraft.registration}/loading`}
          className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
        >
          <Text className="font-strong">Enter the load</Text>
        </NavLink>
        <NavLink
          href={`/aircraft/${bundle.aircraft.registration}/plan`}
          className="min-h-14 items-center justify-center self-start rounded-xl border-2 border-ink px-4"
        >
          <Text className="font-strong">Weather and performance</Text>
        </NavLink>
      </View>
    </View>
  );
}

function checked(
  profile: NonNullable<KnownAircraft["bundle"]["loading"]>,
  { stations, litres = {} }: PlannedLoad,
  { fuel }: KnownAircraft["bundle"]["type"],
  { flightMin, people }: { flightMin: number; people: number },
) {
  const kgPerL = fuelDensity(fuel?.grades?.[0] ?? "100LL", 15);
  return checkLoad(profile, { stations, litres, kgPerL, people }, burnFor(fuel, flightMin));
}

/** Warns before the checklist is composed if a flight starting now would end at night. */
function Daylight({ aircraft: { bundle, plan } }: { aircraft: KnownAircraft }) {
  const { airfield, rules } = bundle;
  if (airfield?.lat === undefined || airfield.lon === undefined || !rules?.night) return null;
  const from = new Date().toISOString();
  const to = new Date(Date.now() + plan.flightMin * 60_000).toISOString();
  const { night } = lightOf({ from, to }, { lat: airfield.lat, lon: airfield.lon }, rules.night.begins);
  if (
    !night ||
    plan.conditions.includes("night") ||
    bundle.type.notOffered?.some(({ condition }) => condition === "night")
  )
    return null;
  return (
    <View className="flex-row gap-2" testID="night-flight">
      <View className="pt-0.5">
        <GradeMark grade="ask" size={20} />
      </View>
      <Text className="shrink font-mid">
        {`If you take off now, you land at ${clockText(to)}, at night (${nightBeginsText(rules.night.begins)}). Choose “night” above, or plan a day flight.`}
      </Text>
    </View>
  );
}
