import { subjectOf } from "../../record/lock-subjects";
import { eventKind } from "./event-kind";

export const FLIGHT_KINDS = {
  "flight.logged": eventKind("flight.logged", {
    subjects: ({ data }, groupId) => [subjectOf.aircraft(groupId, data.registration)],
    rows: ["flight_log", "meter_totals"],
  }),
  "flight.corrected": eventKind("flight.corrected", {
    subjects: ({ data }, groupId) => [subjectOf.aircraft(groupId, data.registration)],
    rows: ["flight_log", "meter_totals"],
  }),
};
