import { formatNumber, type LoadingProfile, type PlannedLoad } from "@cravix/core";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { dayText } from "../../ui/day-and-time";
import { Button } from "../../ui/input/button";
import { type MassUnit, massText } from "./load-draft";

interface OwnMass {
  kg: number;
  at: string;
}

/** Below this it is a number on its way to being typed, kg. */
const LIGHTEST_KG = 30;
/** Above this it is two people, or pounds. */
const HEAVIEST_KG = 160;
/** One seat holds no more; a place that does may hold two. */
const ONE_PERSON_KG = 130;
/** So long a mass is offered again: people change. */
const OFFERED_DAYS = 365;
const DAY_MS = 86_400_000;

/**
 * What who flies weighs, as entered last. It is that person's own: it stays on this device, under that person's name, and is offered, never put in unasked. It is learned where one
 * person alone can be meant: a seat for one, or nobody coming along.
 */
export function useOwnMass(
  crewId: string | null,
  { stations }: Pick<LoadingProfile, "stations">,
  people: number,
) {
  const { value, change } = usePersistedState<OwnMass | null>(`own mass:${crewId ?? "nobody"}`, null);
  const seat = stations.find(({ pilot }) => pilot);
  return {
    learn: (load: PlannedLoad | undefined) => {
      const kg = seat && load?.stations[seat.id];
      if (!crewId || !kg || kg < LIGHTEST_KG || kg > HEAVIEST_KG) return;
      if (people > 1 && (seat.maxKg ?? Number.POSITIVE_INFINITY) > ONE_PERSON_KG) return;
      change(() => ({ kg, at: new Date().toISOString() }));
    },
    /** To be put into the pilot's seat while nothing stands there. */
    offer: (
      values: Readonly<Record<string, string>>,
      unit: MassUnit,
      put: (values: Record<string, string>) => void,
    ) => {
      const old = !value || Date.now() - Date.parse(value.at) > OFFERED_DAYS * DAY_MS;
      if (old || !seat || (values[seat.id] ?? "").trim() !== "") return null;
      const text = massText(value.kg, unit);
      return (
        <Button testID="own-mass" onPress={() => put({ ...values, [seat.id]: text })}>
          {`Use your mass: ${formatNumber(Number(text), 0)} ${unit} (${dayText(value.at)})`}
        </Button>
      );
    },
  };
}
