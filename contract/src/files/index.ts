export * from "./file-schemas";
export * from "./json-schema";
export * from "./list-schema";
export * from "./read-file";
export * from "./validate-file";
