// Bundled together, because the people page and the prepare page both load them on demand.
export { PilotDue as PilotToday } from "../start/pilot-due";
export { PersonDueList } from "./person-due";
