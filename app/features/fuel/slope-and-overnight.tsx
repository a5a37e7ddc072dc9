import {
  dropsOfWater,
  type NightAir,
  overnightCondensationMl,
} from "@cravix/core/fuel/drain/overnight-condensation";
import { MAX_TILT_DEG, type Tilt } from "@cravix/core/fuel/tanks/dip-corrected-for-tilt";
import { formatNumber } from "@cravix/core/units/format";
import { quantityError } from "@cravix/core/verdict/judges/fuel-input";
import { View } from "react-native";
import { Stepper } from "../../ui/input/stepper";
import { JudgementCard } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";

const LEVEL: Tilt = { rightDownDeg: 0, noseUpDeg: 0 };
const MILD: NightAir = { lowC: 5, dewPointC: 8, nights: 1 };

/** Slope on the ground and overnight conditions, which affect the dipstick and the first samples. */
export function GroundAndNight({ preflight, acts }: { preflight: LoadedPreflight; acts: Acts }) {
  const { told } = preflight.state;
  const { fuel } = preflight.list.type;
  const tilt = told.tilt ?? LEVEL;
  // Starts with the reported dew point; the minimum temperature must be entered.
  const dewPointC = preflight.state.weather?.report?.dewPointC;
  const night = told.night ?? { ...MILD, ...(dewPointC !== undefined && { dewPointC }) };
  const shaped = fuel?.tanks.every((tank) => tank.geometry) ?? false;
  const lean = (part: Partial<Tilt>) => {
    const bound = (x: number) => Math.min(MAX_TILT_DEG, Math.max(-MAX_TILT_DEG, x));
    const next = { ...tilt, ...part };
    acts.told({ tilt: { rightDownDeg: bound(next.rightDownDeg), noseUpDeg: bound(next.noseUpDeg) } });
  };
  const air = (part: Partial<NightAir>) => acts.told({ night: { ...night, ...part } });
  const degrees = (value: number, down: string, up: string, level: string) =>
    value === 0 ? level : `${formatNumber(Math.abs(value), 1)}° ${value > 0 ? down : up}`;
  const judged = preflight.judged.judgements.filter(
    ({ judge }) => judge === "fuel.night" || judge === "fuel.settling",
  );
  return (
    <View className="gap-4">
      <View className="gap-1.5">
        <Heading className="text-lg">Is the aircraft level?</Heading>
        <Text className="text-sm text-voice">
          Enter the wing and nose angle if the aircraft is not on level ground.
        </Text>
        <Stepper
          text={degrees(tilt.rightDownDeg, "right wing down", "left wing down", "wings level")}
          step={0.5}
          unit="degrees to the right"
          testID="tilt"
          onStep={(by) => lean({ rightDownDeg: tilt.rightDownDeg + by })}
        />
        <Stepper
          text={degrees(tilt.noseUpDeg, "nose up", "nose down", "nose level")}
          step={0.5}
          unit="degrees nose up"
          testID="pitch"
          onStep={(by) => lean({ noseUpDeg: tilt.noseUpDeg + by })}
        />
        <Text className="text-sm text-voice">
          {shaped
            ? "Tank shape on file: dips are corrected for a slope of up to 6°."
            : "Tank shape not on file: dips are not corrected for slope. Move the aircraft to level ground."}
        </Text>
      </View>
      <View className="gap-1.5">
        <Heading className="text-lg">Overnight conditions</Heading>
        <Stepper
          text={
            told.night
              ? `lowest temperature ${formatNumber(night.lowC)} °C`
              : "lowest temperature: not entered"
          }
          step={1}
          unit="degrees lowest temperature"
          testID="night-low"
          onStep={(by) => air({ lowC: Math.min(40, Math.max(-40, night.lowC + by)) })}
        />
        <Stepper
          text={told.night ? `dew point ${formatNumber(night.dewPointC)} °C` : "dew point: not entered"}
          step={1}
          unit="degrees of dew point"
          testID="dew-point"
          onStep={(by) => air({ dewPointC: Math.min(35, Math.max(-40, night.dewPointC + by)) })}
        />
        <Stepper
          text={`${night.nights} ${night.nights === 1 ? "night" : "nights"}`}
          step={1}
          unit="nights"
          testID="nights"
          onStep={(by) => air({ nights: Math.min(60, Math.max(1, night.nights + by)) })}
        />
        <Text className="text-sm text-voice">
          A part-filled tank draws in damp air, and water condenses in it overnight. The figure is the maximum
          possible.
        </Text>
      </View>
      {told.night && <NightWater preflight={preflight} night={told.night} />}
      {judged.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
    </View>
  );
}

function drops(ml: number): string {
  const count = dropsOfWater(ml);
  return `${count} ${count === 1 ? "drop" : "drops"}`;
}

function NightWater({ preflight, night }: { preflight: LoadedPreflight; night: NightAir }) {
  const heard = preflight.judged.fuel?.tanks ?? [];
  const problem = quantityError(() => overnightCondensationMl(1, night));
  if (problem) return <Text className="font-mid text-clay">{problem}</Text>;
  if (heard.length === 0)
    return (
      <Text className="text-voice">
        Dip the tanks first: the amount depends on the air space above the fuel.
      </Text>
    );
  return (
    <View className="gap-1">
      {heard.map(({ tank, estimate }) => {
        const ml = overnightCondensationMl(Math.max(0, tank.capacityL - estimate.litres.value), night);
        return (
          <View key={tank.id} className="flex-row justify-between border-b-2 border-stone pb-1">
            <Text>{tank.name}</Text>
            <Text className="font-mid">{`at most ${formatNumber(ml, 1)} ml, ${drops(ml)}`}</Text>
          </View>
        );
      })}
    </View>
  );
}
