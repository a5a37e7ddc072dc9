/** Due items of an aircraft: what they say about a flight. */

export { DueJudgements } from "./due-judgements";
export { flightQuestion } from "./flight-question";
export { gradeOf } from "./grade-of";
export { NoAirworthinessRecord } from "./no-airworthiness-record";
export { type Airworthiness, dueRows, useAirworthiness, useLocalEvents } from "./use-airworthiness";
