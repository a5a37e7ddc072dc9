import { windComponents } from "@cravix/core/air/wind-components";
import { runwayInUse } from "@cravix/core/checklist/list/runway-in-use";
import { READING } from "@cravix/core/readings/reading-keys";
import { compareRunways } from "@cravix/core/runways/compare-runways";
import { isConvertible, QuantityError, type Unit, valueIn } from "@cravix/core/units/convert";
import { formatNumber } from "@cravix/core/units/format";
import { reportedWind } from "@cravix/core/verdict/judges/wind-now";
import { View } from "react-native";
import Svg, { Circle, G, Path, Rect, Text as SvgText } from "react-native-svg";
import { JudgementCard } from "../../ui/judgement-card";
import { usePalette } from "../../ui/paint/use-palette";
import { Heading, Text } from "../../ui/text";
import type { LoadedPreflight } from "../open-preflight";
import { PreflightWeather } from "./preflight-weather";

/** The runway as seen from the aircraft, with the wind. */
export function WindPanel({ preflight }: { preflight: LoadedPreflight }) {
  const { state, list, judged } = preflight;
  const runway = runwayInUse(list, state)?.runway;
  const told = (key: string, unit: Unit) => {
    const reading = state.readings[key];
    return reading && isConvertible(reading.unit, unit) ? valueIn(key, reading, unit) : undefined;
  };
  const fromDeg = told(READING.windFrom, "°");
  const kt = told(READING.windSpeed, "kt");
  if (!runway)
    return (
      <View className="gap-3">
        <Runways preflight={preflight} />
        <PreflightWeather preflight={preflight} />
      </View>
    );
  const components =
    fromDeg === undefined || kt === undefined ? undefined : safeComponents(runway.headingDeg, fromDeg, kt);
  const wind = judged.judgements.filter(
    (j) => j.topic === "wind" && !j.itemIds?.includes(preflight.item?.id ?? ""),
  );
  return (
    <View className="gap-2">
      <View className="flex-row items-center gap-4">
        <Rose runway={runway.id} angleDeg={fromDeg === undefined ? undefined : fromDeg - runway.headingDeg} />
        <View className="shrink gap-1">
          <Text className="font-strong text-lg">Runway {runway.id}</Text>
          <Text className="text-sm text-voice">
            {formatNumber(runway.lengthM)} m, {runway.surface}
          </Text>
          {components && (
            <Text className="font-mid">
              {formatNumber(Math.abs(components.headwindKt))} kt{" "}
              {components.headwindKt >= -0.5 ? "headwind" : "tailwind"} ·{" "}
              {formatNumber(Math.abs(components.crosswindKt))} kt crosswind
            </Text>
          )}
        </View>
      </View>
      {wind.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
      <PreflightWeather preflight={preflight} />
    </View>
  );
}

/** Choice of runways before one is selected. */
function Runways({ preflight }: { preflight: LoadedPreflight }) {
  const { list } = preflight;
  if (!list.airfield) return null;
  const wind = reportedWind(preflight);
  const choice = wind && compareRunways(list.airfield, wind);
  if (choice)
    return (
      <View className="gap-2">
        <Heading className="text-lg">{`Runways at ${list.airfield.name}`}</Heading>
        <Text className="font-mid">{choice.why}</Text>
        {choice.runways.map(({ runway, alongKt, crossKt, tailKt }) => (
          <View key={runway.id} className="flex-row items-baseline gap-3 border-b-2 border-stone pb-1">
            <Text className="w-12 font-strong text-2xl">{runway.id}</Text>
            <Text className={`shrink ${tailKt > 0.5 ? "text-clay" : "text-voice"}`}>
              {`${tailKt > 0.5 ? `${formatNumber(tailKt)} kt tailwind` : `${formatNumber(Math.max(0, alongKt))} kt headwind`}, ${formatNumber(crossKt)} kt crosswind; ${formatNumber(runway.lengthM)} m, ${runway.surface}`}
            </Text>
          </View>
        ))}
      </View>
    );
  return (
    <View className="gap-2">
      <Heading className="text-lg">{`Runways at ${list.airfield.name}`}</Heading>
      {list.airfield.runways.map((runway) => (
        <View key={runway.id} className="flex-row items-baseline gap-3 border-b-2 border-stone pb-1">
          <Text className="w-12 font-strong text-2xl">{runway.id}</Text>
          <Text className="text-voice">
            {`${String(runway.headingDeg).padStart(3, "0")}°, ${formatNumber(runway.lengthM)} m, ${runway.surface}`}
          </Text>
        </View>
      ))}
    </View>
  );
}

function safeComponents(runwayDeg: number, fromDeg: number, kt: number) {
  try {
    return windComponents(runwayDeg, { fromDeg, kt });
  } catch (error) {
    if (error instanceof QuantityError) return undefined;
    throw error;
  }
}

function Rose({ runway, angleDeg }: { runway: string; angleDeg: number | undefined }) {
  const { ink, stone, chock, paper } = usePalette();
  return (
    <Svg width={132} height={132} viewBox="0 0 132 132" aria-hidden>
      <Circle cx={66} cy={66} r={62} fill={paper} stroke={stone} strokeWidth={4} />
      <Rect x={50} y={14} width={32} height={104} fill={stone} stroke={ink} strokeWidth={2.5} />
      <SvgText
        x={66}
        y={110}
        fontSize={20}
        fontWeight="700"
        fontFamily="AtkinsonNextBold"
        textAnchor="middle"
        fill={ink}
      >
        {runway}
      </SvgText>
      {angleDeg !== undefined && (
        <G rotation={angleDeg} origin="66, 66">
          <Path
            d="M60 2 H72 V34 H84 L66 60 L48 34 H60 Z"
            fill={chock}
            stroke={ink}
            strokeWidth={2.5}
            strokeLinejoin="round"
          />
        </G>
      )}
    </Svg>
  );
}
