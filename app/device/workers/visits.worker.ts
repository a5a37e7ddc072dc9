// Subpath import keeps the rest of core out of this worker.
import { planVisits, type VisitItem, type VisitPlan } from "@cravix/core/airworthiness/plan/plan-visits";

/** The group's aircraft with their workshop items, and the opening days. */
export interface VisitsRequest {
  aircraft: { registration: string; items: VisitItem[] }[];
  horizon: number;
  /** Weekday of today, 0 for Sunday; and days from today when the workshop is closed besides weekends. */
  weekday: number;
  blocked: number[];
}
export type PlannedAircraft = VisitPlan & { registration: string };

self.onmessage = ({ data }: MessageEvent<VisitsRequest & { id: number }>) => {
  try {
    const blocked = new Set(data.blocked);
    const open = (day: number) => {
      const weekday = (data.weekday + day) % 7;
      return weekday !== 0 && weekday !== 6 && !blocked.has(day);
    };
    const result: PlannedAircraft[] = data.aircraft.map(({ registration, items }) => ({
      registration,
      ...planVisits(items, { horizon: data.horizon, open }),
    }));
    self.postMessage({ id: data.id, result });
  } catch (error) {
    self.postMessage({ id: data.id, error: (error as Error).message });
  }
};
