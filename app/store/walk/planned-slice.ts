import type { Condition, LaunchWay, PlannedLoad, Preferences, Purpose } from "@cravix/core";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";

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
  /** What it is for, where it may pass a limit of its papers. */
  purpose?: Purpose | undefined;
  /** Outside air; absent: not given. */
  celsius?: number;
  /** Who else is here: reads, answers, holds. */
  secondCrewId?: string;
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
      { payload: { registration, ...part } }: PayloadAction<Partial<Planned> & { registration: string }>,
    ) => {
      state.byRegistration[registration] = {
        ...(state.byRegistration[registration] ?? NOTHING_PLANNED),
        ...part,
      };
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
