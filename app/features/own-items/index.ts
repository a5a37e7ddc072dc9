import { lazyScreen } from "../../ui/lazy-screen";

export const OwnItemsScreen = lazyScreen<{ registration: string }>(() =>
  import("./own-items-screen").then((module) => module.OwnItemsScreen),
);
