export * from "./api/api-types";
export * from "./bounds/plain-text";
export * from "./events/event-schema";
export * from "./events/new-id";
export * from "./files/content-hash";
export * from "./files/list-paper";
