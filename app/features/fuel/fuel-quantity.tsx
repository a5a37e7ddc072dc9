import { FUEL_UNITS } from "@cravix/core/fuel/grade/fuel-amount";
import { fuelUnits } from "@cravix/core/fuel/grade/fuel-text";
import { ENDURANCE, WORST_CASE } from "@cravix/core/fuel/judge-fuel";
import { capital, formatNumber } from "@cravix/core/units/format";
import { fuelKgPerL, wordsOfWalk } from "@cravix/core/verdict/judges/fuel-input";
import { View } from "react-native";
import { Choice } from "../../ui/input/choice";
import { JudgementCard } from "../../ui/judgement-card";
import { Heading, Text } from "../../ui/text";
import type { Acts, LoadedPreflight } from "../open-preflight";
import { SourceBars } from "./source-bars";

/** Judgements of the fuel quantity. */
const AMOUNT: ReadonlySet<string> = new Set(["fuel.endurance", "fuel.uplifts", "fuel.earlier"]);

/** Dipstick, gauge and log side by side, per tank and in total, and whether they agree. */
export function FuelQuantity({ preflight, acts }: { preflight: LoadedPreflight; acts: Acts }) {
  const { fuel, judgements } = preflight.judged;
  const { type, memory } = preflight.list;
  const about = judgements.filter(
    ({ id, judge }) => AMOUNT.has(judge ?? "") && id !== ENDURANCE && id !== WORST_CASE,
  );
  const kgPerL = fuelKgPerL(preflight.list, preflight.state);
  const words = wordsOfWalk(preflight.list, preflight.state);
  const usable = fuel?.usableL;
  return (
    <View className="gap-2">
      <Choice
        title="Fuel unit"
        options={FUEL_UNITS}
        value={words.unit}
        onChange={(unit) => acts.told({ unit })}
      />
      {(!fuel || fuel.tanks.length === 0) && (
        <Text className="text-voice">No tank dipped yet. Dip each tank at its station.</Text>
      )}
      {fuel && fuel.tanks.length > 0 && (
        <Text className="text-sm text-voice">
          The shaded band is the likely amount; each marker is one source.
        </Text>
      )}
      {fuel?.total && fuel.total.sources.length > 1 && (
        <SourceBars
          name="All tanks"
          capacityL={(type.fuel?.tanks ?? []).reduce((sum, t) => sum + t.capacityL, 0)}
          sources={fuel.total.sources}
          estimate={fuel.total.estimate}
          words={words}
        />
      )}
      {fuel?.tanks.map(({ tank, sources, estimate }) => (
        <SourceBars
          key={tank.id}
          name={capital(tank.name)}
          capacityL={tank.capacityL}
          sources={sources}
          estimate={estimate}
          words={words}
        />
      ))}
      {about.map((judgement) => (
        <JudgementCard key={judgement.id} judgement={judgement} />
      ))}
      {usable !== undefined && (
        <>
          <Heading className="mt-1 text-lg">Usable, in every unit</Heading>
          <View className="flex-row flex-wrap gap-x-6 gap-y-1">
            {FUEL_UNITS.map((unit) => (
              <Text key={unit} className="font-mid">
                {`${fuelUnits(unit, kgPerL).say(usable)}`}
              </Text>
            ))}
          </View>
          <Text className="text-sm text-voice">
            {`Mass at ${formatNumber(kgPerL, 3)} kg per litre, for ${formatNumber(preflight.state.celsius ?? 15)} °C.`}
          </Text>
        </>
      )}
      {!memory?.fuel && (
        <Text className="text-sm text-voice">
          The log is not used: not every tank was measured last time.
        </Text>
      )}
      {memory?.faults.map((fault) => (
        <Text key={fault} className="text-sm text-clay">
          {fault}
        </Text>
      ))}
    </View>
  );
}
