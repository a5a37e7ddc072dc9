export * from "./upgrade-bundle";
export * from "./upgrade-event";
export * from "./upgrade-file";
