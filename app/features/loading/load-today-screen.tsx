import type { Load, LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { formatNumber } from "@cravix/core/units/format";
import { fuelKgPerL } from "@cravix/core/verdict/judges/fuel-input";
import { burnOfPreflight, peopleOfPreflight } from "@cravix/core/verdict/judges/judge-loading";
import { router } from "expo-router";
import { useMemo } from "react";
import { View } from "react-native";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { record } from "../../store/preflight/record";
import { useAppDispatch } from "../../store/state/hooks";
import { Screen } from "../../ui/frame/screen";
import { Button } from "../../ui/input/button";
import { Choice } from "../../ui/input/choice";
import { PageHead } from "../../ui/page-head";
import { Text } from "../../ui/text";
import { useWide } from "../../ui/use-wide";
import { type FoldedPreflight, PreflightFrame, useLoadedPreflight } from "../open-preflight";
import { draftOfLoad, inOtherUnit, loadOf, MASS_UNITS, type MassUnit } from "./load-draft";
import { LoadResult } from "./load-result";
import { StationFields } from "./station-fields";

/** Text as entered, with its unit. */
interface TodayDraft {
  unit: MassUnit;
  stations: Record<string, string>;
}

const NO_TANKS: Readonly<Record<string, number>> = {};

/** Load on board at the aircraft, with the dipped fuel. Changes apply from now on; the plan stays on record. */
export function LoadTodayScreen({ id }: { id: string }) {
  return <PreflightFrame id={id}>{(folded) => <Today folded={folded} />}</PreflightFrame>;
}

function Today({ folded }: { folded: FoldedPreflight }) {
  const profile = folded.list.loading;
  if (profile) return <Aboard folded={folded} profile={profile} />;
  return (
    <Screen back={`/preflight/${folded.state.id}/verdict`}>
      <PageHead>Load on board</PageHead>
      <Text className="mt-2">
        No weighing report on file: mass and balance cannot be calculated. An owner or a mechanic can add it.
      </Text>
    </Screen>
  );
}

function Aboard({ folded, profile }: { folded: FoldedPreflight; profile: LoadingProfile }) {
  const preflight = useLoadedPreflight(folded);
  const dispatch = useAppDispatch();
  const wide = useWide();
  const { list, state, judged } = preflight;
  const back = `/preflight/${state.id}/verdict` as const;
  const first = useMemo(
    (): TodayDraft => ({
      unit: "kg",
      stations: draftOfLoad(profile, { ...(state.plannedLoad && { planned: state.plannedLoad }) }).stations,
    }),
    [profile, state.plannedLoad],
  );
  const { value: draft, change, drop } = usePersistedState<TodayDraft>(`aboard draft:${state.id}`, first);
  const { unit, stations } = draft;
  const write = (values: Record<string, string>) => change((before) => ({ ...before, stations: values }));
  const toUnit = (next: MassUnit) =>
    change((before) =>
      next === before.unit ? before : { unit: next, stations: inOtherUnit(before.stations, next) },
    );
  const told = useMemo(() => loadOf({ unit, stations, litres: {} }), [unit, stations]);
  const dipped = judged.fuel?.volumesL ?? NO_TANKS;
  const notDipped = profile.tanks.filter(({ tank }) => dipped[tank] === undefined);
  const load = useMemo(
    (): Load | undefined =>
      told && notDipped.length === 0
        ? {
            stations: told.stations,
            litres: dipped,
            kgPerL: fuelKgPerL(list, state),
            people: peopleOfPreflight(list),
          }
        : undefined,
    [told, dipped, notDipped.length, list, state],
  );
  const burn = useMemo(() => burnOfPreflight(list, state), [list, state]);
  const put = async () => {
    if (!told) return;
    const { litres } = state.plannedLoad ?? {};
    await dispatch(record(state.id, "load.told", { stations: told.stations, ...(litres && { litres }) }));
    drop();
    router.replace(back);
  };
  const tankName = (tank: string) => list.type.fuel?.tanks.find(({ id }) => id === tank)?.name ?? tank;
  return (
    <Screen
      back={back}
      actions={
        !state.signed && (
          <Button
            tone="primary"
            className="min-h-20"
            textClassName="text-xl"
            testID="primary"
            disabled={!told}
            onPress={() => void put()}
          >
            Save this load
          </Button>
        )
      }
    >
      <PageHead
        title={`${list.registration}: load on board`}
      >{`${list.registration}: load on board`}</PageHead>
      <View className={wide ? "mt-3 flex-row gap-8" : "mt-3 gap-4"}>
        <View className={wide ? "flex-1 gap-3" : "gap-3"}>
          <Choice title="Mass unit" options={MASS_UNITS} value={unit} onChange={toUnit} />
          <View className="flex-row flex-wrap gap-3">
            <StationFields profile={profile} unit={unit} values={stations} onChange={write} />
          </View>
          {profile.tanks.length > 0 && (
            <Text className="text-voice">
              {notDipped.length > 0
                ? `Not dipped yet: ${notDipped.map(({ tank }) => tankName(tank)).join(", ")}. Dip these tanks to calculate mass and balance.`
                : `Fuel as measured: ${profile.tanks.map(({ tank }) => `${tankName(tank)} ${formatNumber(dipped[tank] ?? 0)} L`).join(", ")}.`}
            </Text>
          )}
        </View>
        <View className={wide ? "flex-[1.2]" : ""}>
          {load ? (
            <LoadResult profile={profile} load={load} burn={burn} />
          ) : (
            told === undefined && (
              <Text role="alert">
                A number is missing or wrong. Correct it to calculate mass and balance.
              </Text>
            )
          )}
        </View>
      </View>
    </Screen>
  );
}
