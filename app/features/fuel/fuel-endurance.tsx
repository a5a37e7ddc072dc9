import type { FuelUnit } from "@cravix/core/fuel/grade/fuel-amount";
import type { FuelUnits } from "@cravix/core/fuel/grade/fuel-text";
import { burnAt, ENDURANCE, WORST_CASE } from "@cravix/core/fuel/judge-fuel";
import { refuelPlan } from "@cravix/core/fuel/margin/refuel-plan";
import type { SimulatedMargin } from "@cravix/core/fuel/margin/simulate-margin";
import { formatNumber, formatQuantity } from "@cravix/core/units/format";
import { fuelKgPerL, wordsOfWalk } from "@cravix/core/verdict/judges/fuel-input";
import { massRoom, payloadOf } from "@cravix/core/verdict/mass-room";
import { addMinutes } from "date-fns/addMinutes";
import { useEffect, useState } from "react";
import { View } from "react-native";
import Svg, { Line, Rect, Text as SvgText } from "react-native-svg";
import { simulateFlights } from "../../device/workers/fluid-work";
import { clockText } from "../../ui/day-and-time";
import { Choice } from "../../ui/input/choice";
import { Stepper } from "../../ui/input/stepper";
import { Caution, JudgementCard } from "../../ui/judgement-card";
import { usePalette } from "../../ui/paint/use-palette";
import { Heading, Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";

const PUMP_UNITS = ["L", "US gal", "imp gal"] as const satisfies readonly FuelUnit[];
const STEP: Record<(typeof PUMP_UNITS)[number], number> = { L: 1, "US gal": 0.1, "imp gal": 0.1 };
const time = (value: number) => formatQuantity({ value, unit: "min" });

/** Endurance, reserve, time to land by, worst reasonable case, and what to add to which tank. */
export function FuelEndurance({ preflight, acts }: { preflight: LoadedPreflight; acts: Acts }) {
  const { list, state, judged } = preflight;
  const { fuel: profile } = list.type;
  const { fuel, judgements } = judged;
  const [unit, setUnit] = useState<(typeof PUMP_UNITS)[number]>("L");
  const flown = useSimulation(fuel?.plan);
  if (!profile) return null;
  const words = wordsOfWalk(list, state);
  const burn = burnAt(profile, state.told.setting);
  const setting = state.told.setting ?? profile.settings?.find((s) => s.lPerH === burn?.value)?.name;
  const enough = fuel?.enough;
  const payload = payloadOf(list, state);
  const mass = massRoom(preflight.list, preflight.state, preflight.judged.fuel);
  const shown = judgements.filter(({ id }) => id === ENDURANCE || id === WORST_CASE);
  return (
    <View className="gap-4">
      {profile.settings && (
        <Choice
          title="Planned power"
          options={profile.settings.map((s) => s.name)}
          value={setting}
          onChange={(name) => acts.told({ setting: name })}
          why={burn && `${words.say(burn.value)}/h: ${burn.source.text}`}
        />
      )}
      {profile.maxTakeoffKg && (
        <View className="gap-1.5">
          <Heading className="text-lg">People and baggage</Heading>
          <Stepper
            text={
              payload
                ? `${formatNumber(payload.kg)} kg${payload.from === "planned" ? ", as planned" : ""}`
                : "not entered"
            }
            step={10}
            unit="kilograms"
            testID="payload"
            onStep={(by) =>
              acts.told({ payloadKg: Math.min(2000, Math.max(0, Math.round(payload?.kg ?? 150) + by)) })
            }
          />
          <Text className={`text-sm ${mass && mass.roomKg < 0 ? "font-mid text-clay" : "text-voice"}`}>
            {massText(mass)}
          </Text>
        </View>
      )}
      {!enough && (
        <Text className="text-voice">
          Dip every tank and set the flight time. This page then shows whether the fuel is enough.
        </Text>
      )}
      {enough && fuel.onGroundWithinMin !== undefined && (
        <View className="flex-row flex-wrap gap-x-6 gap-y-2">
          <Figure label="Endurance" value={time(enough.enduranceMin)} />
          <Figure label="Endurance without reserve" value={time(enough.legalMin)} />
          <Figure label="Take-off now: land by" value={clock(enough.legalMin)} />
          <Figure label="Worst case: land by" value={clock(enough.worstLegalMin)} />
        </View>
      )}
      {shown.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
      {enough && flown && <Flown flown={flown} words={words} />}
      {enough && (
        <>
          <Choice title="Pump unit" options={PUMP_UNITS} value={unit} onChange={setUnit} />
          <ToAdd preflight={preflight} unit={unit} missingL={Math.max(0, -enough.worstMarginL)} mass={mass} />
        </>
      )}
      <Caution>
        The handbook's figures and local rules come first. All limits here are example values.
      </Caution>
    </View>
  );
}

const clock = (minutes: number) => clockText(addMinutes(new Date(), Math.floor(minutes)));

function Figure({ label, value }: { label: string; value: string }) {
  return (
    <View className="min-w-[40%]">
      <Text className="text-sm text-voice">{label}</Text>
      <Text className="font-strong text-xl">{value}</Text>
    </View>
  );
}

function massText(mass: ReturnType<typeof massRoom>): string {
  if (!mass) return "";
  if (mass.missing !== undefined) return mass.missing;
  return mass.roomKg < 0
    ? `${formatNumber(-mass.roomKg)} kg above the maximum take-off mass.`
    : `${formatNumber(mass.roomKg)} kg below the maximum take-off mass. Check the CG under Mass and balance.`;
}

interface ToAddProps {
  preflight: LoadedPreflight;
  unit: (typeof PUMP_UNITS)[number];
  missingL: number;
  mass: ReturnType<typeof massRoom>;
}

/** What to add to each tank in order, and what full tanks would take. */
function ToAdd({ preflight, unit, missingL, mass }: ToAddProps) {
  const { list, judged, state } = preflight;
  const { fuel: profile } = list.type;
  if (!profile || !judged.fuel) return null;
  const known = mass && mass.missing === undefined;
  const filling = refuelPlan({
    tanks: profile.tanks.map((tank) => ({
      ...tank,
      volumeL: Math.min(tank.capacityL, Math.max(0, judged.fuel?.volumesL[tank.id] ?? 0)),
    })),
    neededL: missingL,
    ...(profile.imbalanceL && { imbalanceL: profile.imbalanceL.value }),
    ...(known && { massRoomKg: mass.roomKg }),
    kgPerL: fuelKgPerL(list, state),
    pump: { unit, step: STEP[unit] },
  });
  const words = wordsOfWalk(list, state);
  const amount = (value: number) => `${formatNumber(value, unit === "L" ? 0 : 1)} ${unit}`;
  return (
    <View className="gap-1.5" testID="to-add">
      <Heading className="text-lg">Fuel to add</Heading>
      {filling.steps.length === 0 && filling.missingL === 0 && (
        <Text>None: the reserve is kept even in the reasonable worst case.</Text>
      )}
      {filling.steps.map((step, i) => (
        <View key={`${step.tankId}${i}`} className="flex-row justify-between rounded-xl bg-stone px-3 py-2">
          <Text>{`${i + 1}. ${step.name}`}</Text>
          <Text className="font-strong">{amount(step.amount)}</Text>
        </View>
      ))}
      {filling.missingL > 0 && (
        <Text className="font-mid text-clay">
          {`${words.say(filling.missingL)} short: ${filling.limitedBy === "mass" ? "take-off mass limit" : "tanks full"}. Plan a shorter flight or a fuel stop.`}
        </Text>
      )}
      <Text className="text-sm text-voice">
        {`Filling the tanks would take ${words.say(filling.fullL)}${known ? ", within the mass limit" : "; mass limit not checked"}.`}
      </Text>
    </View>
  );
}

/** Ten thousand simulated flights in a worker; restarted for a new plan. */
function useSimulation(plan: Parameters<typeof simulateFlights>[0] | undefined): SimulatedMargin | undefined {
  const [flown, setFlown] = useState<{ key: string; result: SimulatedMargin }>();
  const key = JSON.stringify(plan);
  useEffect(() => {
    if (!plan) return;
    let current = true;
    simulateFlights(JSON.parse(key)).then(
      (result) => current && setFlown({ key, result }),
      // Without a worker only the closed form is shown.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [key, plan]);
  // Without a plan the key is undefined, and so is that of a simulation not yet run.
  return flown && flown.key === key ? flown.result : undefined;
}

/** Histogram of margins; flights that use reserve fuel are struck through. */
function Flown({ flown, words }: { flown: SimulatedMargin; words: FuelUnits }) {
  const { ink, stone, clay, chock } = usePalette();
  const { fromL, toL, counts } = flown.histogram;
  const most = Math.max(...counts);
  const width = 340 / counts.length;
  const x = (litres: number) => ((litres - fromL) / (toL - fromL)) * 340;
  const zero = fromL < 0 && toL > 0 ? x(0) : undefined;
  const part = flown.short * 100;
  const touching = part < 0.05 ? "none uses" : `${formatNumber(part, part < 1 ? 1 : 0)} in 100 use`;
  return (
    <View className="gap-1">
      <Text className="font-mid">{`${formatNumber(flown.samples)} simulated flights: ${touching} the reserve.`}</Text>
      <View
        role="img"
        aria-label={`Fuel margins from ${words.say(fromL)} to ${words.say(toL)}`}
        style={{ aspectRatio: 340 / 92 }}
      >
        <Svg width="100%" height="100%" viewBox="0 0 340 92">
          {counts.map((count, i) => {
            const height = (count / most) * 64;
            const below = fromL + ((i + 0.5) / counts.length) * (toL - fromL) < 0;
            return (
              <Rect
                key={`${i}-${count}`}
                x={i * width + 1}
                y={68 - height}
                width={width - 2}
                height={height}
                fill={below ? clay : chock}
                stroke={ink}
                strokeWidth={1}
              />
            );
          })}
          <Line x1={0} x2={340} y1={68} y2={68} stroke={ink} strokeWidth={2} />
          {zero !== undefined && <Line x1={zero} x2={zero} y1={0} y2={74} stroke={ink} strokeWidth={3} />}
          <Line
            x1={x(flown.worstL)}
            x2={x(flown.worstL)}
            y1={10}
            y2={74}
            stroke={ink}
            strokeWidth={2}
            strokeDasharray="4 3"
          />
          <Rect x={0} y={74} width={340} height={18} fill={stone} opacity={0} />
          <SvgText x={2} y={88} fontSize={14} fill={ink} fontFamily="AtkinsonNext">
            {words.say(fromL)}
          </SvgText>
          <SvgText
            x={Math.min(270, Math.max(60, x(flown.worstL)))}
            y={88}
            fontSize={14}
            fill={ink}
            textAnchor="middle"
            fontFamily="AtkinsonNextSemiBold"
          >
            {`worst ${words.say(flown.worstL)}`}
          </SvgText>
          <SvgText x={338} y={88} fontSize={14} fill={ink} textAnchor="end" fontFamily="AtkinsonNext">
            {words.say(toL)}
          </SvgText>
        </Svg>
      </View>
    </View>
  );
}
