import { lazyScreen } from "../../ui/lazy-screen";

export const DiscrepanciesScreen = lazyScreen(() =>
  import("./discrepancies-screen").then((module) => module.DiscrepanciesScreen),
);
