import { lazyScreen } from "../../ui/lazy-screen";

export const SchoolScreen = lazyScreen<{ registration: string }>(() =>
  import("./school-screen").then((module) => module.SchoolScreen),
);
