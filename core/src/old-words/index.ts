export * from "./old-events";
export * from "./old-files";
export * from "./old-notes";
