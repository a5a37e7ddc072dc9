import { lazyScreen } from "../../ui/lazy-screen";

export const KeptScreen = lazyScreen(() => import("./kept-screen").then((module) => module.KeptScreen));
