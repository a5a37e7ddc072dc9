/** All preflight pages in one chunk: otherwise shared code would go into the first load, and offline pages would load one by one. */
export { AfterScreen } from "../after/after-screen";
export { StepScreen } from "../checklist/step-screen";
export { DebriefScreen } from "../debrief/debrief-screen";
export { CarryScreen } from "../departure/carry-screen";
export { DepartureScreen } from "../departure/departure-screen";
export { DepartureForFlight as DepartureToday } from "../departure/departure-today";
export { PassengersScreen } from "../departure/passengers-screen";
export { PlanScreen } from "../departure/plan-screen";
export { AddOilScreen } from "../fluids/add-oil-screen";
export { FuelQuantityScreen as FuelDeskScreen } from "../fuel/fuel-screen";
export { LedgerScreen } from "../ledger/ledger-screen";
export { LineUpScreen } from "../line-up/line-up-screen";
export { LoadTodayScreen } from "../loading/load-today-screen";
export { LoadingScreen } from "../loading/loading-screen";
export { ControlsScreen } from "../run-up/controls-screen";
export { RunUpScreen } from "../run-up/run-up-screen";
export { VerdictScreen } from "../verdict/verdict-screen";
