import { airworthinessSnapshot, judgeAirworthiness } from "@cravix/core/airworthiness/airworthiness-snapshot";
import {
  addDays,
  daysBetween,
  isLocalDate,
  type LocalDate,
} from "@cravix/core/airworthiness/calendar/local-date";
import { planCost, type VisitItem } from "@cravix/core/airworthiness/plan/plan-visits";
import { usualOf, visitItem } from "@cravix/core/airworthiness/plan/when-due";
import {
  type ClosedPeriod,
  manualPlanCost,
  type PlannedVisit,
  workshopFrom,
} from "@cravix/core/airworthiness/plan/workshop-plan";
import { useEffect, useMemo, useState } from "react";
import { usePersistedState } from "../../device/log/use-persisted-state";
import { planInWorker } from "../../device/workers/plan-work";
import type { PlannedAircraft } from "../../device/workers/visits.worker";
import { useFleet } from "../../store/server/server-state";
import { useToday } from "../../store/server/today";
import { useAppSelector } from "../../store/state/hooks";
import { serverApi } from "../../store/state/server-api";
import { useWorkshop } from "./use-workshop";

/** Planning horizon for visits, days. */
export const HORIZON = 365;

/** Manual changes: visit days of aircraft, and closed periods. */
interface Draft {
  days: Record<string, LocalDate[]>;
  closed: ClosedPeriod[];
}

/** Visits of one aircraft, planned or moved by hand. */
export interface AircraftVisits {
  registration: string;
  items: VisitItem[];
  best: PlannedAircraft;
  /** Days from today. */
  days: number[];
  byHand: boolean;
  visits: { day: number; items: string[] }[];
  cost: ReturnType<typeof manualPlanCost> | undefined;
}

/** JSON has no infinity: the interval of work that is done once comes back as null. */
const finite = (name: string, value: unknown) =>
  name === "interval" && value === null ? Number.POSITIVE_INFINITY : value;

/** Workshop visits of the group: the best plan from the worker, manual changes, and their cost. */
export function useVisits() {
  const bundles = useAppSelector((state) => state.server);
  const fleet = useFleet();
  const { plan: kept, known, away } = useWorkshop();
  const today = useToday();
  const asked = useMemo(() => {
    const names = new Map<string, string>();
    const aircraft = (fleet?.aircraft ?? []).flatMap(({ registration }) => {
      const papers = serverApi.endpoints.bundle.select(registration)({ server: bundles } as never).data
        ?.papers;
      if (!papers) return [];
      const usual = usualOf(papers.days, papers.record.meters, today);
      const judged = judgeAirworthiness(airworthinessSnapshot(papers.record, papers), {
        at: new Date().toISOString(),
        minutes: 0,
        landings: 0,
        conditions: ["instrument"],
      });
      const items = judged.flatMap(({ item, verdict }) => {
        const one = visitItem(item, verdict.limits, usual, today);
        if (one) names.set(`${registration} ${item.id}`, item.name);
        return one ? [one] : [];
      });
      return items.length > 0 ? [{ registration, items }] : [];
    });
    return { aircraft, names };
  }, [fleet, bundles, today]);

  // Manual changes start from the published plan and survive a reload.
  const draft = usePersistedState<Draft | null>("workshop draft", null);
  const standing = useMemo(
    (): Draft => ({ closed: kept?.closed ?? [], days: daysByHand(kept?.visits ?? [], today) }),
    [kept, today],
  );
  // Once published, changes are no longer a draft; offline they remain one.
  const isOnRecord = draft.value !== null && said(draft.value) === said(standing);
  useEffect(() => {
    if (!isOnRecord) return;
    draft.change(() => null);
    draft.drop();
  }, [isOnRecord, draft.change, draft.drop]);
  const now = draft.value ?? standing;
  const change = (part: Partial<Draft>) => draft.change((before) => ({ ...(before ?? standing), ...part }));

  const shop = useMemo(() => workshopFrom(today, HORIZON, now.closed), [today, now.closed]);
  const key = JSON.stringify({ aircraft: asked.aircraft, closed: now.closed });
  const [best, setBest] = useState<PlannedAircraft[]>();
  const [problem, setProblem] = useState("");
  useEffect(() => {
    if (!known) return;
    let current = true;
    const { aircraft, closed } = JSON.parse(key, finite) as {
      aircraft: typeof asked.aircraft;
      closed: ClosedPeriod[];
    };
    if (aircraft.length === 0) return;
    const open = workshopFrom(today, HORIZON, closed).open;
    const weekday = new Date(`${today}T12:00:00Z`).getUTCDay();
    const blocked = Array.from({ length: HORIZON + 1 }, (_, day) => day).filter((day) => !open(day));
    planInWorker({ aircraft, horizon: HORIZON, weekday, blocked }).then(
      (made) => current && setBest(made),
      (error: Error) => current && setProblem(error.message),
    );
    return () => {
      current = false;
    };
  }, [key, today, known]);

  const aircraft = useMemo(
    () =>
      (best ?? []).flatMap((plan): AircraftVisits[] => {
        const items = asked.aircraft.find((one) => one.registration === plan.registration)?.items;
        if (!items) return [];
        const dates = now.days[plan.registration];
        if (!dates)
          return [
            {
              registration: plan.registration,
              items,
              best: plan,
              days: plan.visits.map(({ day }) => day),
              byHand: false,
              visits: plan.visits,
              cost: undefined,
            },
          ];
        const days = dates.map((date) => daysBetween(today, date));
        const cost = manualPlanCost(items, shop, days, plan);
        return [
          {
            registration: plan.registration,
            items,
            best: plan,
            days,
            byHand: true,
            visits: planCost(items, shop, days).visits,
            cost,
          },
        ];
      }),
    [best, asked, now.days, shop, today],
  );
  const nameOf = (registration: string, item: string) => asked.names.get(`${registration} ${item}`) ?? item;
  return {
    today,
    aircraft,
    closed: now.closed,
    kept,
    away,
    changed: draft.value !== null,
    planning: best === undefined && problem === "",
    problem,
    open: shop.open,
    nameOf,
    /** Sets an aircraft's visit days (from today); undefined restores the best plan. */
    setDays: (registration: string, days: readonly number[] | undefined) => {
      const { [registration]: _before, ...others } = now.days;
      change({
        days: days
          ? {
              ...others,
              [registration]: [...new Set(days)].sort((a, b) => a - b).map((day) => addDays(today, day)),
            }
          : others,
      });
    },
    setClosed: (closed: ClosedPeriod[]) => change({ closed }),
    /** The current plan, ready to publish. */
    asPlan: () => ({
      closed: now.closed,
      visits: aircraft.flatMap(({ registration, visits, byHand }) =>
        visits.map(
          ({ day, items }): PlannedVisit => ({
            registration,
            date: addDays(today, day),
            items: items.map((item) => nameOf(registration, item)),
            ...(byHand && { byHand: true as const }),
          }),
        ),
      ),
    }),
  };
}

export type Visits = ReturnType<typeof useVisits>;

/** Canonical text of a draft, equal for equal plans. */
function said({ closed, days }: Draft): string {
  const sorted = Object.entries(days).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([closed.map(({ from, to, why = "" }) => [from, to, why]), sorted]);
}

/** Days of aircraft with visits moved by hand; past days are dropped. */
function daysByHand(visits: readonly PlannedVisit[], today: LocalDate): Record<string, LocalDate[]> {
  const moved = new Set(visits.filter(({ byHand }) => byHand).map(({ registration }) => registration));
  const days: Record<string, LocalDate[]> = {};
  for (const { registration, date } of visits)
    if (moved.has(registration) && isLocalDate(date) && date >= today)
      days[registration] = [...(days[registration] ?? []), date];
  return days;
}
