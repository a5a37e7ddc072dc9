export * from "./upgrade-event";
export * from "./upgrade-file";
export * from "./upgrade-bundle";
