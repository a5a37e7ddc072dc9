import { can } from "@cravix/contract/client";
import { fuelDensity } from "@cravix/core/fuel/grade/fuel-grades";
import { lastFluids } from "@cravix/core/logs/last-fluids";
import type { Load } from "@cravix/core/mass-and-balance/loading-profile";
import { reserveFor } from "@cravix/core/rules/rule-set";
import { capital, formatNumber } from "@cravix/core/units/format";
import { burnFor, peopleOfPreflight } from "@cravix/core/verdict/judges/judge-loading";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { useAppDispatch } from "../../store/state/hooks";
import { planned } from "../../store/state/planned-slice";
import { Screen } from "../../ui/frame/screen";
import { Choice } from "../../ui/input/choice";
import { TextField } from "../../ui/input/text-field";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../aircraft-frame";
import { draftOfLoad, inOtherUnit, type LoadDraft, loadOf, MASS_UNITS, tankFault } from "./load-draft";
import { LoadBrief, LoadResult } from "./load-result";
import { StationFields } from "./station-fields";
import { useOwnMass } from "./use-own-mass";
import { WeighingReport } from "./weighing-report";

/** Mass and balance planning from take-off to zero fuel. The result becomes the preflight's load. */
export function LoadingScreen({ registration }: { registration: string }) {
  return (
    <AircraftFrame registration={registration}>{(aircraft) => <Known aircraft={aircraft} />}</AircraftFrame>
  );
}

function Known({ aircraft }: { aircraft: KnownAircraft }) {
  const { registration } = aircraft.bundle.aircraft;
  if (aircraft.bundle.loading) return <Loading aircraft={aircraft} />;
  return (
    <Screen back={`/aircraft/${registration}`}>
      <PageHead title={`${registration} mass and balance`}>{`${registration}: mass and balance`}</PageHead>
      <Text className="mt-2">
        No weighing report on file: mass and balance cannot be calculated. An owner or a mechanic can add it
        as a file.
      </Text>
    </Screen>
  );
}

function Loading({ aircraft: { bundle, plan, crew, crewId } }: { aircraft: KnownAircraft }) {
  const role = crew.find((member) => member.id === crewId)?.role;
  const profile = bundle.loading as NonNullable<typeof bundle.loading>;
  const { registration } = bundle.aircraft;
  const { fuel } = bundle.type;
  const wide = useWide();
  const dispatch = useAppDispatch();
  const capacityL = useMemo(
    () => Object.fromEntries((fuel?.tanks ?? []).map((tank) => [tank.id, tank.capacityL])),
    [fuel],
  );
  const [draft, setDraft] = useState<LoadDraft>(() =>
    draftOfLoad(profile, {
      planned: plan.load,
      measuredL: lastFluids(bundle.type, bundle.fluids).fuel?.litres,
      capacityL,
    }),
  );
  const people = peopleOfPreflight(plan);
  const own = useOwnMass(crewId, profile, people);
  const set = (part: Partial<LoadDraft>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    const load = loadOf(next);
    own.learn(load);
    if (load) dispatch(planned({ registration, load }));
  };
  const toUnit = (unit: LoadDraft["unit"]) => {
    if (unit !== draft.unit) setDraft({ ...draft, unit, stations: inOtherUnit(draft.stations, unit) });
  };
  const kgPerL = fuelDensity(fuel?.grades?.[0] ?? "100LL", 15);
  const load = useMemo((): Load | undefined => {
    const told = loadOf(draft);
    return told && { stations: told.stations, litres: told.litres ?? {}, kgPerL, people };
  }, [draft, kgPerL, people]);
  const { rules } = bundle;
  const burn = useMemo(
    () => burnFor(fuel, plan.flightMin, reserveFor(rules ?? undefined, plan.conditions)?.minutes),
    [fuel, plan.flightMin, plan.conditions, rules],
  );
  const fields = (
    <View className="gap-3">
      <Choice title="Mass unit" options={MASS_UNITS} value={draft.unit} onChange={toUnit} />
      {own.offer(draft.stations, draft.unit, (stations) => set({ stations }))}
      <View className="flex-row flex-wrap gap-3">
        <StationFields
          profile={profile}
          unit={draft.unit}
          values={draft.stations}
          onChange={(stations) => set({ stations })}
        />
        {profile.tanks.map(({ tank }) => (
          <View key={tank} className="min-w-[45%] flex-1">
            <TextField
              label={`${capital(fuel?.tanks.find(({ id }) => id === tank)?.name ?? tank)}, L`}
              value={draft.litres[tank] ?? ""}
              onChange={(value) => set({ litres: { ...draft.litres, [tank]: value } })}
              maxLength={8}
              numeric
              placeholder="0"
              fault={tankFault(draft.litres[tank] ?? "", capacityL[tank])}
            />
          </View>
        ))}
      </View>
      <Text className="text-sm text-voice">
        {`Fuel as last measured, until you dip the tanks in the preflight. Fuel burn: ${formatNumber(burn.taxiL)} L before take-off, ${formatNumber(burn.tripL)} L for ${plan.flightMin} minutes of flight.`}
      </Text>
      <WeighingReport profile={profile} mayWrite={can(role && { role }, "weighing.enter")} />
    </View>
  );
  const result = load ? (
    <LoadResult profile={profile} load={load} burn={burn} />
  ) : (
    <Text role="alert">A number is missing or wrong. Correct it to calculate mass and balance.</Text>
  );
  return (
    <Screen
      back={`/aircraft/${registration}`}
      actions={
        // Keep the result visible while numbers are entered.
        !wide && load && <LoadBrief profile={profile} load={load} burn={burn} />
      }
    >
      <PageHead title={`${registration} mass and balance`}>{`${registration}: mass and balance`}</PageHead>
      <Text className="mt-1 text-sm text-voice">
        Enter the mass at every station. The line shows the flight from take-off to zero fuel.
      </Text>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-4"}>
        <View className={wide ? "flex-1" : ""}>{fields}</View>
        <View className={wide ? "flex-[1.2]" : ""}>{result}</View>
      </View>
    </Screen>
  );
}
