/** All pages of a walk: what they share would otherwise be fetched with the first page of the house, and out there nobody waits for one after the other. */
export { AfterScreen } from "../after/after-screen";
export { DebriefScreen } from "../debrief/debrief-screen";
export { CarryScreen } from "../departure/carry-screen";
export { DepartureScreen } from "../departure/departure-screen";
export { DepartureToday } from "../departure/departure-today";
export { PassengersScreen } from "../departure/passengers-screen";
export { AddOilScreen } from "../fluids/add-oil-screen";
export { FuelDeskScreen } from "../fuel/fuel-screen";
export { LedgerScreen } from "../ledger/ledger-screen";
export { LineUpScreen } from "../line-up/line-up-screen";
export { LoadTodayScreen } from "../loading/load-today-screen";
export { LoadingScreen } from "../loading/loading-screen";
export { StepScreen } from "../preflight/step-screen";
export { ControlsScreen } from "../run-up-entry/controls-screen";
export { RunUpScreen } from "../run-up-entry/run-up-screen";
export { VerdictScreen } from "../verdict/verdict-screen";
