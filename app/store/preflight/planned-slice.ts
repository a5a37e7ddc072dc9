import type { Condition, LaunchWay, PlannedLoad, Preferences, Purpose, WeatherInputs } from "@cravix/core";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { applyPatch, type Change } from "../apply-patch";

/** What has been set for the next walk of an aircraft, before it begins. */
export interface Planned {
  conditions: Condition[];
  flightMin: number;
  /** Landings of the flight; one without. */
  landings?: number;
  /** How a glider goes up. */
  launch?: LaunchWay;
  /** Kilograms by place, and the fuel that was reckoned with. */
  load?: PlannedLoad;
  /** From where, on which runway, in which weather. */
  departure?: PlannedDeparture;
  /** What it is for, where it may pass a limit of its papers. */
  purpose?: Purpose | undefined;
  /** Outside air; absent: not given. */
  celsius?: number;
  /** Who else is here: reads, answers, holds. */
  secondCrewId?: string;
}

/** A departure as it was planned: what is absent has not been thought of yet. */
export interface PlannedDeparture {
  /** The field, where it is not the aircraft's own; and where to. */
  fieldId?: string;
  toId?: string;
  runwayId?: string;
  /** When it takes off, where that is not now. */
  at?: string;
  weather?: WeatherInputs;
  /** What is said of the destination. */
  weatherThere?: WeatherInputs;
  squawk?: string;
  frequency?: string;
  /** Below this height above the field nobody turns back, ft: set by whoever flies. */
  turnBackFt?: number;
}

export interface PlannedState {
  byRegistration: Record<string, Planned>;
  /** How each pilot works on each aircraft, by `preferencesKey`. */
  preferences: Record<string, Preferences>;
}

export const NOTHING_PLANNED: Planned = { conditions: [], flightMin: 60 };
const initialState: PlannedState = { byRegistration: {}, preferences: {} };

export const preferencesKey = (crewId: string, registration: string) => `${crewId}:${registration}`;

export const plannedSlice = createSlice({
  name: "planned",
  initialState,
  reducers: {
    planned: (
      state,
      { payload: { registration, ...part } }: PayloadAction<Change<Planned> & { registration: string }>,
    ) => {
      state.byRegistration[registration] = applyPatch<Planned>(
        state.byRegistration[registration] ?? NOTHING_PLANNED,
        part,
      );
    },
    planUsed: (state, { payload }: PayloadAction<string>) => {
      delete state.byRegistration[payload];
    },
    preferencesSet: (
      state,
      { payload }: PayloadAction<{ crewId: string; registration: string; preferences: Preferences }>,
    ) => {
      state.preferences[preferencesKey(payload.crewId, payload.registration)] = payload.preferences;
    },
    plannedRestored: (_state, { payload }: PayloadAction<PlannedState>) => payload,
  },
});

export const { planned, plannedRestored, planUsed, preferencesSet } = plannedSlice.actions;

type PlanAction =
  | ReturnType<typeof planned>
  | ReturnType<typeof planUsed>
  | ReturnType<typeof preferencesSet>;

/** What lies on the disk, with the one thing that this window has just set or used, as it is here now: another window plans another aircraft. */
export function withPlan(
  onDisk: PlannedState | undefined,
  here: PlannedState,
  action: PlanAction,
): PlannedState {
  const { byRegistration, preferences } = { ...initialState, ...onDisk };
  if (preferencesSet.match(action)) {
    const { crewId, registration, preferences: set } = action.payload;
    return { byRegistration, preferences: { ...preferences, [preferencesKey(crewId, registration)]: set } };
  }
  const registration = planned.match(action) ? action.payload.registration : action.payload;
  const { [registration]: _before, ...others } = byRegistration;
  const own = here.byRegistration[registration];
  return { byRegistration: { ...others, ...(own && { [registration]: own }) }, preferences };
}
