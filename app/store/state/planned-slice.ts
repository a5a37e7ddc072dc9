import type { Condition } from "@cravix/core/aircraft/aircraft-type";
import type { Preferences } from "@cravix/core/aircraft/preferences";
import type { LaunchWay } from "@cravix/core/airworthiness/airworthiness-snapshot";
import type { AirspaceKind, FlightUse, Purpose } from "@cravix/core/airworthiness/due/due-item";
import type { PlannedLoad } from "@cravix/core/mass-and-balance/loading-profile";
import type { WeatherInputs } from "@cravix/core/weather/weather-inputs";
import { createSlice, type PayloadAction } from "@reduxjs/toolkit";
import { applyPatch, type Change } from "./apply-patch";

/** Settings for the next preflight of an aircraft. */
export interface Planned {
  conditions: Condition[];
  flightMin: number;
  /** Planned landings; default one. */
  landings?: number;
  /** Launch method of a glider. */
  launch?: LaunchWay;
  /** Kilograms by station, and planned fuel. */
  load?: PlannedLoad;
  /** Field, runway and weather. */
  departure?: PlannedDeparture;
  /** Purpose that may allow exceeding a due limit. */
  purpose?: Purpose | undefined;
  /** What the flight is for, the airspace at both ends, and the seats; absent: not told. */
  use?: FlightUse;
  airspace?: Partial<Record<AirspaceKind, boolean>>;
  fullSeats?: boolean;
  dayAndNight?: boolean;
  /** Day for which the due items are asked, if not today. */
  onDay?: string | undefined;
  /** Outside air temperature; absent: not entered. */
  celsius?: number;
  /** Second person, who reads, answers or holds. */
  secondCrewId?: string;
}

/** A planned departure; absent fields are not planned yet. */
export interface PlannedDeparture {
  /** Departure field if not the aircraft's own, and destination. */
  fieldId?: string;
  toId?: string;
  runwayId?: string;
  /** Take-off time, if not now. */
  at?: string;
  weather?: WeatherInputs;
  /** Weather at the destination. */
  weatherThere?: WeatherInputs;
  squawk?: string;
  frequency?: string;
  /** Height above the field below which there is no turning back, ft: set by the pilot. */
  turnBackFt?: number;
}

export interface PlannedState {
  byRegistration: Record<string, Planned>;
  /** Preferences by pilot and aircraft, see `preferencesKey`. */
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

/** Stored plans with one aircraft's plan replaced, since other windows may plan other aircraft. */
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
