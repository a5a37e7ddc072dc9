import { lazyScreen } from "../../ui/lazy-screen";

export const ListScreen = lazyScreen<{ registration: string }>(() =>
  import("./list-screen").then((module) => module.ListScreen),
);
