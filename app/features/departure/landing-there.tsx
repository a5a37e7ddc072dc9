import {
  type Airfield,
  type DepartureInput,
  distanceWords,
  formatNumber,
  reckonDeparture,
} from "@cravix/core";
import { useMemo } from "react";
import { View } from "react-native";
import { GradeMark } from "../../ui/grade-mark";
import { Heading, Text } from "../../ui/text";

/** Colder by so much for each thousand feet: the standard atmosphere. */
const LAPSE_C_PER_1000_FT = 1.98;

/** Whether it lands at the destination, on each of its runways, with the mass that it will have there; in still air, for nobody knows the wind there yet. */
export function LandingThere({ input, to }: { input: DepartureInput | undefined; to: Airfield }) {
  const rows = useMemo(() => {
    if (!input) return [];
    const { wind: _wind, ...still } = input;
    const celsius =
      input.celsius === undefined
        ? undefined
        : input.celsius - ((to.elevationFt - input.airfield.elevationFt) / 1000) * LAPSE_C_PER_1000_FT;
    return to.runways.map((runway) => ({
      runway,
      there: reckonDeparture({
        ...still,
        airfield: to,
        runway,
        ...(celsius !== undefined && { celsius }),
        // At home it is wet or not; there it is not known, and grass is taken as wet.
        state: "wet",
      }),
    }));
  }, [input, to]);
  if (rows.length === 0) return null;
  return (
    <View className="gap-1.5" testID="landing-there">
      <Heading className="text-lg">{`Landing at ${to.name}, ${formatNumber(to.elevationFt)} ft`}</Heading>
      {rows.map(({ runway, there: { landing, missing } }) => (
        <View key={runway.id} className="flex-row gap-2">
          <View className="pt-0.5">
            <GradeMark
              grade={!landing ? "unjudged" : landing.leftM < 0 ? "stop" : "within limits"}
              size={20}
            />
          </View>
          <Text className={`shrink ${landing && landing.leftM < 0 ? "text-clay" : ""}`}>
            {`${runway.id}: ${landing ? distanceWords("Landing", landing).replace(/^Landing /, "") : (missing[0]?.why ?? "not reckoned")}`}
          </Text>
        </View>
      ))}
      <Text className="text-sm text-voice">
        Still air, wet, as warm as it is here less what the height takes off. Ask for the wind there: with it
        the runway is chosen.
      </Text>
    </View>
  );
}
