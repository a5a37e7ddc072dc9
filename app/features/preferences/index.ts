import { lazyScreen } from "../../ui/lazy-screen";

export const PreferencesScreen = lazyScreen<{ registration: string }>(() =>
  import("./preferences-screen").then((module) => module.PreferencesScreen),
);
