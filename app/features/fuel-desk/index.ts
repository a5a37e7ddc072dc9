import { lazyScreen } from "../../ui/lazy-screen";

export const FuelDeskScreen = lazyScreen<{ id: string }>(() =>
  import("./fuel-desk-screen").then((module) => module.FuelDeskScreen),
);
