export * from "./engine";
export * from "./engine-shape";
export * from "./monitor";
export * from "./pilot";
export * from "./planted-fault";
export * from "./simulate-run-up";
