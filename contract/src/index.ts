export * from "./api/api-types";
export * from "./bounds/flatten";
export * from "./bounds/json-depth";
export * from "./bounds/plain-text";
export * from "./events/event-schema";
export * from "./events/new-id";
export * from "./files/content-hash";
export * from "./files/list-paper";
