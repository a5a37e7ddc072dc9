export * from "./cleared";
export * from "./diagnose";
export * from "./fault-library";
export * from "./next-test";
export * from "./observations";
export * from "./observe";
export * from "./open-questions";
export * from "./report";
