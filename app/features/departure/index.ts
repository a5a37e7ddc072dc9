/** Weather, distances and briefings of the departure, as shown during the checklist. */

export { BriefingPanel, PassengersDoor } from "./briefing-panel";
export { ByReport } from "./by-report";
export { TaxiPanel } from "./taxi-panel";
export { WindPanel } from "./wind-panel";
