// What is shown of a person's due items, in one part: the page of people and the page before a walk both fetch it when they need it.
export { PilotToday } from "../start/pilot-due";
export { PersonDueList } from "./person-due";
