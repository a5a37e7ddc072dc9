import { lazyScreen } from "../../ui/lazy-screen";

export const DebriefScreen = lazyScreen<{ id: string }>(() =>
  import("./debrief-screen").then((module) => module.DebriefScreen),
);
