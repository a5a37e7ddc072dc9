import { lazyScreen } from "../../ui/lazy-screen";

// One piece for both: what two pieces share would be loaded with the first page.
export const RunUpScreen = lazyScreen<{ id: string; engine?: string }>(() =>
  import("./screens").then((module) => module.RunUpScreen),
);

export const ControlsScreen = lazyScreen<{ id: string }>(() =>
  import("./screens").then((module) => module.ControlsScreen),
);
