import type { LoadingProfile, PlannedLoad } from "@cravix/core/mass-and-balance/loading-profile";
import { formatNumber } from "@cravix/core/units/format";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { dayText } from "../../ui/day-and-time";
import { Button } from "../../ui/input/button";
import { type MassUnit, massText } from "./load-draft";

interface OwnMass {
  kg: number;
  at: string;
}

/** Lower values are unfinished input, kg. */
const LIGHTEST_KG = 30;
/** Higher values are two people, or pounds. */
const HEAVIEST_KG = 160;
/** Maximum for a single seat; a station above it may hold two people. */
const ONE_PERSON_KG = 130;
/** Days for which a mass is offered. */
const OFFERED_DAYS = 365;
const DAY_MS = 86_400_000;

/**
 * The pilot's own mass, as last entered. It stays on this device under the pilot's name, and is offered but never filled in
 * automatically. It is learned only if one person is certain: a single seat, or no passengers.
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
    /** Mass to offer while the pilot's seat is empty. */
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
