export * from "./checks";
export * from "./run-up-engine";
export * from "./to-readings";
export * from "./typed-read";
