import { lazyScreen } from "../../ui/lazy-screen";

export const AddOilScreen = lazyScreen<{ id: string }>(() =>
  import("./add-oil-screen").then((module) => module.AddOilScreen),
);
