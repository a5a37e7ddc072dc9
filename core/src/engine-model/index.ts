export * from "./engine";
export * from "./engine-shape";
export * from "./monitor";
export * from "./pilot";
export * from "./simulate-run-up";
export * from "./simulated-fault";
