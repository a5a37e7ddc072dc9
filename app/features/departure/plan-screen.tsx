import { Redirect, router } from "expo-router";
import { View } from "react-native";
import { useFleet } from "../../store/server/server-state";
import { useAppSelector } from "../../store/state/hooks";
import { Toggle } from "../../ui/input/toggle";
import { PageNotFound } from "../shell";
import { DepartureScreen } from "./departure-screen";

/** Place of the house: the next flight of an aircraft, from the first page in one tap. */
export function PlanScreen({ registration }: { registration?: string }) {
  const { ready, crewId } = useAppSelector((state) => state.session);
  const open = useAppSelector((state) => state.preflight.open);
  const fleet = useFleet();
  if (ready && !crewId) return <Redirect href="/" />;
  const usable = (fleet?.aircraft ?? []).filter(({ stub }) => stub === null);
  const wanted = registration ?? open.find(({ flying }) => !flying)?.registration;
  const shown = (usable.find((one) => one.registration === wanted) ?? usable[0])?.registration;
  if (!shown)
    return (
      <PageNotFound
        title="Plan"
        head={fleet ? "No aircraft with a checklist yet" : "Fetching your aircraft …"}
      />
    );
  return (
    <DepartureScreen
      key={shown}
      registration={shown}
      choose={
        <View className="flex-row flex-wrap gap-2" testID="plan-aircraft">
          {usable.map((one) => (
            <Toggle
              key={one.registration}
              on={one.registration === shown}
              className="px-3"
              onPress={() => router.setParams({ aircraft: one.registration })}
            >
              {one.registration}
            </Toggle>
          ))}
        </View>
      }
    />
  );
}
