// Bundled together, because the people page and the prepare page both load them on demand.

export { PersonDueList } from "./person-due";
export { PilotDue as PilotToday } from "./pilot-due";
