import { mayDo } from "@cravix/contract/client";
import {
  armOf,
  burnFor,
  chanceOutside,
  changeWords,
  checkLoad,
  faultWords,
  formatNumber,
  fuelDensity,
  type Load,
  lastFluids,
  roomIn,
  smallestChanges,
} from "@cravix/core";
import { useMemo, useState } from "react";
import { View } from "react-native";
import { useAppDispatch } from "../../store/hooks";
import { planned } from "../../store/walk/planned-slice";
import { GRADE_WORD, GradeMark } from "../../ui/grade-mark";
import { Choice } from "../../ui/input/choice";
import { TextField } from "../../ui/input/text-field";
import { PageHead } from "../../ui/page-head";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { AircraftFrame, type KnownAircraft } from "../start/aircraft-frame";
import { EnvelopeDrawing } from "./envelope-drawing";
import {
  draftOfLoad,
  entryDoubt,
  entryFault,
  type LoadDraft,
  loadOf,
  MASS_UNITS,
  peopleAboard,
  tankFault,
} from "./load-draft";
import { WeighingReport } from "./weighing-report";

/** Who and what goes where, and whether it is inside from take-off to the last drop of fuel. What is entered here becomes the preflight's load. */
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
      <PageHead title={`${registration} loading`}>{`${registration}: loading`}</PageHead>
      <Text className="mt-2">
        No weighing report is on file: nobody can say what it weighs and where. An owner or a mechanic adds it
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
  const set = (part: Partial<LoadDraft>) => {
    const next = { ...draft, ...part };
    setDraft(next);
    const load = loadOf(next);
    if (load) dispatch(planned({ registration, load }));
  };
  const toUnit = (unit: LoadDraft["unit"]) => {
    const load = loadOf(draft);
    setDraft(load ? draftOfLoad(profile, { planned: load, unit }) : { ...draft, unit });
  };
  const people = peopleAboard(plan);
  const kgPerL = fuelDensity(fuel?.grades?.[0] ?? "100LL", 15);
  const load = useMemo((): Load | undefined => {
    const told = loadOf(draft);
    return told && { stations: told.stations, litres: told.litres ?? {}, kgPerL, people };
  }, [draft, kgPerL, people]);
  const burn = useMemo(() => burnFor(fuel, plan.flightMin), [fuel, plan.flightMin]);
  const fields = (
    <View className="gap-3">
      <Choice title="Masses in" options={MASS_UNITS} value={draft.unit} onChange={toUnit} />
      <View className="flex-row flex-wrap gap-3">
        {profile.stations.map((station) => {
          const text = draft.stations[station.id] ?? "";
          return (
            <View key={station.id} className="min-w-[45%] flex-1">
              <TextField
                label={`${station.name}, ${draft.unit}`}
                value={text}
                onChange={(value) => set({ stations: { ...draft.stations, [station.id]: value } })}
                maxLength={8}
                numeric
                placeholder={station.pilot ? "" : "0"}
                fault={entryFault(text) ?? entryDoubt(text, draft.unit, station)}
              />
            </View>
          );
        })}
        {profile.tanks.map(({ tank }) => (
          <View key={tank} className="min-w-[45%] flex-1">
            <TextField
              label={`${fuel?.tanks.find(({ id }) => id === tank)?.name ?? tank}, L`}
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
        {`Fuel stands as it was measured last, until the dip of the preflight says what is really there. Burnt: ${formatNumber(burn.taxiL)} L before take-off, ${formatNumber(burn.tripL)} L on ${plan.flightMin} minutes.`}
      </Text>
      <WeighingReport profile={profile} mayWrite={mayDo(role, "enter a weighing")} />
    </View>
  );
  const result = load ? (
    <Result bundle={bundle} load={load} burn={burn} />
  ) : (
    <Text role="alert">A number is missing or wrong: nothing is reckoned with it.</Text>
  );
  return (
    <Screen
      back={`/aircraft/${registration}`}
      actions={
        // What it comes to stays in sight while the numbers are entered.
        !wide && load && <Brief profile={profile} load={load} burn={burn} />
      }
    >
      <PageHead title={`${registration} loading`}>{`${registration}: loading`}</PageHead>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-4"}>
        <View className={wide ? "flex-1" : ""}>{fields}</View>
        <View className={wide ? "flex-[1.2]" : ""}>{result}</View>
      </View>
    </Screen>
  );
}

function Brief({
  profile,
  load,
  burn,
}: {
  profile: NonNullable<KnownAircraft["bundle"]["loading"]>;
  load: Load;
  burn: ReturnType<typeof burnFor>;
}) {
  const { faults, missing, points } = checkLoad(profile, load, burn);
  const takeOff = points.find(({ name }) => name === "take-off");
  const [worst] = faults;
  return (
    <Text className="font-strong text-lg text-deck-ink" testID="loading-brief">
      {missing[0] ??
        (worst
          ? `${GRADE_WORD.stop}: ${faultWords(worst)}`
          : `Inside: ${formatNumber(takeOff?.kg ?? 0)} kg at take-off`)}
    </Text>
  );
}

function Result({
  bundle,
  load,
  burn,
}: {
  bundle: KnownAircraft["bundle"];
  load: Load;
  burn: ReturnType<typeof burnFor>;
}) {
  const wide = useWide();
  const profile = bundle.loading as NonNullable<typeof bundle.loading>;
  const check = useMemo(() => checkLoad(profile, load, burn), [profile, load, burn]);
  const open = check.missing.length > 0;
  const outside = !open && check.faults.length > 0;
  const changes = useMemo(
    () => (outside ? smallestChanges(profile, load, burn).slice(0, 4) : []),
    [profile, load, burn, outside],
  );
  const room = useMemo(
    () => (outside ? [] : roomIn(profile, load, burn).filter(({ kg }) => kg > 0)),
    [profile, load, burn, outside],
  );
  const chance = useMemo(() => chanceOutside(profile, load, burn, undefined, 400), [profile, load, burn]);
  const takeOff = check.points.find(({ name }) => name === "take-off");
  if (open)
    return (
      <View className="gap-2" role="status" testID="loading-result">
        <View className="flex-row items-center gap-3">
          <GradeMark grade="ask" size={30} />
          <Text className="shrink font-strong text-xl">Somebody's mass is missing</Text>
        </View>
        {check.missing.map((question) => (
          <Text key={question}>{question}</Text>
        ))}
        <Text className="text-voice">
          Until it is entered nothing is reckoned: a person without a mass weighs something all the same.
        </Text>
      </View>
    );
  const nameOf = (id: string) => profile.stations.find((one) => one.id === id)?.name ?? id;
  return (
    <View className="gap-3">
      <View className="flex-row items-center gap-3" role="status" testID="loading-result">
        <GradeMark grade={outside ? "stop" : "within limits"} size={30} />
        <Text className={`shrink font-strong text-xl ${outside ? "text-clay" : ""}`}>
          {outside
            ? `${GRADE_WORD.stop}: outside`
            : `Inside, ${formatNumber(takeOff?.kg ?? 0)} kg at ${formatNumber(takeOff ? armOf(takeOff) : 0)} mm`}
        </Text>
      </View>
      {check.faults.map((fault) => (
        <Text key={`${fault.kind}${fault.of}`} className="font-mid text-clay">
          {faultWords(fault)}
        </Text>
      ))}
      {changes.length > 0 && (
        <View className="gap-1" testID="changes">
          <Heading className="text-lg">The smallest change that brings it inside</Heading>
          {changes.map((change, i) => (
            <Text key={JSON.stringify(change)} className={i === 0 ? "font-strong" : ""}>
              {changeWords(change, profile)}
            </Text>
          ))}
        </View>
      )}
      {outside && changes.length === 0 && (
        <Text>Nothing single brings it inside: take more than one thing out.</Text>
      )}
      <EnvelopeDrawing profile={profile} points={check.points} outside={outside} height={wide ? 330 : 260} />
      {room.length > 0 && (
        <Text>
          {`Fits besides: ${room.map(({ id, kg }) => `${formatNumber(kg)} kg in ${nameOf(id)}`).join(", or ")}.`}
        </Text>
      )}
      {!outside && chance > 0.02 && (
        <Text className="font-mid">
          {`Close: if scales, clothes and the dip are off as they usually are, it is outside in ${formatNumber(chance * 100)} of 100.`}
        </Text>
      )}
      <Text className="text-sm text-voice">
        {`Envelope: ${profile.envelope.source.text}. The aircraft's own weighing report and handbook come first.`}
      </Text>
    </View>
  );
}
