export * from "./json-schema";
export * from "./list-schema";
export * from "./read-file";
export * from "./read-library";
export * from "./schemas";
export * from "./validate-file";
