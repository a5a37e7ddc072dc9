export * from "./engine";
export * from "./engine-shape";
export * from "./monitor";
export * from "./pilot";
export * from "./simulated-fault";
export * from "./simulate-run-up";
