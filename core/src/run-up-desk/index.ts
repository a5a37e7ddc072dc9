export * from "./checks";
export * from "./engine-of-walk";
export * from "./typed-read";
