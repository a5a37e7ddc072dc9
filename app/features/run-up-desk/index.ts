import { lazyScreen } from "../../ui/lazy-screen";

export const RunUpScreen = lazyScreen<{ id: string; engine?: string }>(() =>
  import("./run-up-screen").then((module) => module.RunUpScreen),
);

export const ControlsScreen = lazyScreen<{ id: string }>(() =>
  import("./controls-screen").then((module) => module.ControlsScreen),
);
