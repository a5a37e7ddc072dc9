export * from "./api/api-types";
export * from "./events/event-schema";
export * from "./events/new-id";
export * from "./files/content-hash";
export * from "./files/file-schemas";
export * from "./files/list-paper";
export * from "./files/list-schema";
export * from "./files/read-file";
