import { lazyScreen } from "../../ui/lazy-screen";

export const LapScreen = lazyScreen<{ registration: string }>(() =>
  import("./lap-screen").then((module) => module.LapScreen),
);
