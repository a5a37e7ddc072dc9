import { lazyScreen } from "../../ui/lazy-screen";

export const LogsScreen = lazyScreen<{ registration: string }>(() =>
  import("./logs-screen").then((module) => module.LogsScreen),
);
