// Bundled together, because the people page and the prepare page both load them on demand.
export { PilotToday } from "../start/pilot-due";
export { PersonDueList } from "./person-due";
