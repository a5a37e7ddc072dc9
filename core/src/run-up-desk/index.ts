export * from "./checks";
export * from "./engine-of-walk";
export * from "./to-readings";
export * from "./typed-read";
