import type { ForecastSpan, RunwayRange, Sky } from "../report";

/** How well a group was read; only what is understood is used. */
export const GROUP_STATUSES = ["understood", "not observed", "doubted", "not understood"] as const;
export type GroupStatus = (typeof GROUP_STATUSES)[number];

/** One group of a report, as it came, with its meaning. */
export interface ReadGroup {
  text: string;
  status: GroupStatus;
  words: string;
}

/** What has been read of a report or of one part of a forecast. */
export interface Draft {
  sky: Sky;
  celsius?: number;
  dewPointC?: number;
  /** Altimeter settings by the letter of their group, hPa. */
  settings: { Q?: number; A?: number };
  automatic?: true;
  ranges: RunwayRange[];
  windShear: string[];
  /** Runways closed by snow; "all" for the field. */
  closed: string[];
  /** Forecast temperatures with day and hour as written. */
  extremes: { celsius: number; time: string }[];
}

export const newDraft = (): Draft => ({
  sky: { clouds: [], weather: [] },
  settings: {},
  ranges: [],
  windShear: [],
  closed: [],
  extremes: [],
});

/** Words of an understood group, or why it is not used. */
export type Meaning = string | { notObserved: string } | { doubt: string };

/** How one kind of group is read. */
export interface GroupRule {
  name: string;
  shape: RegExp;
  /** Section of WMO-No. 306 or the national form that defines it; from memory. */
  source: string;
  read(match: RegExpExecArray, draft: Draft): Meaning;
  /** Present if a report has one such group at most: forgets it when two differ. */
  forget?(draft: Draft): void;
}

/** A change in a report's trend or in a forecast, before its times are known. */
export type Change = Pick<ForecastSpan, "kind" | "percent">;
