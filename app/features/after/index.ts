import { lazyScreen } from "../../ui/lazy-screen";

export const AfterScreen = lazyScreen<{ id: string }>(() =>
  import("./after-screen").then((module) => module.AfterScreen),
);
