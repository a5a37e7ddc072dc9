export * from "./abort-point";
export * from "./climb-out";
export * from "./distance-needed";
export * from "./performance-profile";
export * from "./read-chart";
