import {
  judgeAirworthiness,
  metersOfSnapshot,
  type RequestedFlight,
} from "../../airworthiness/airworthiness-snapshot";
import { spokenDate } from "../../airworthiness/calendar/local-date";
import { dueJudgement } from "../../airworthiness/due/due-judgement";
import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import type { Judge, JudgedPreflight } from "./judge";

/** Assumed minutes of a flight without a planned length. */
const USUAL_MIN = 60;

/** The preflight's flight as input for due items. */
export function requestedFlight(
  list: Pick<ComposedList, "papers">,
  state: Pick<
    PreflightState,
    | "startedAt"
    | "plannedFlightMin"
    | "plannedLandings"
    | "plannedLaunch"
    | "purpose"
    | "conditions"
    | "readings"
    | "flight"
  >,
): RequestedFlight | undefined {
  if (!list.papers || !state.startedAt) return undefined;
  const read: Record<string, number> = {};
  for (const { reading } of list.papers.meters) {
    const taken = reading === undefined ? undefined : state.readings[reading];
    if (reading !== undefined && taken) read[reading] = taken.value;
  }
  return {
    at: state.startedAt,
    minutes: state.plannedFlightMin ?? USUAL_MIN,
    conditions: state.conditions,
    read,
    ...(state.plannedLandings !== undefined && { landings: state.plannedLandings }),
    ...(state.plannedLaunch && { launch: state.plannedLaunch }),
    ...(state.purpose && { purpose: state.purpose }),
    ...state.flight,
  };
}

/** Judges every due item for this flight. Items needed only for other kinds of flight are left out. */
function judgeDocuments({ list, state }: JudgedPreflight): Judgement[] {
  const asked = requestedFlight(list, state);
  if (!list.papers || !asked)
    return [
      {
        ...notAssessed(
          "unknown.papers",
          "Airworthiness record",
          "Not checked: this aircraft has no airworthiness record on this device.",
        ),
        cause: "unknown.papers",
        action: "Check the aircraft's papers yourself.",
      },
    ];
  const meters = metersOfSnapshot(list.papers);
  const shown = list.items.filter((item) => item.due?.includes("*")).map(({ id }) => id);
  const due = judgeAirworthiness(list.papers, asked)
    .filter(({ verdict }) => verdict.state !== "not for this flight")
    .map(({ item, verdict }) => ({
      ...dueJudgement(item, verdict, meters),
      ...(shown.length > 0 && { itemIds: shown }),
    }));
  const { daily } = list.papers;
  if (!daily) return due;
  return [
    ...due,
    {
      id: "papers.daily",
      scope: "day",
      subject: "Daily inspection",
      grade: "within limits",
      sentence: `Signed in the record for ${spokenDate(daily.date)}.`,
      source: { kind: "rule", text: "airworthiness record", example: false },
      ...(shown.length > 0 && { itemIds: shown }),
    },
  ];
}

/** Airworthiness judges. */
export const AIRWORTHINESS_JUDGES: readonly Judge[] = [
  { id: "papers", subject: "Airworthiness record", topic: "papers", needs: [], judge: judgeDocuments },
];
