// What a page needs of the contract before anything else: ids and types, without the schemas that check what comes in.
export * from "./api/api-types";
export * from "./bounds/plain-text";
export * from "./events/new-id";
export type { Refusal } from "./events/refusal";
export * from "./files/phase-name";
export * from "./permissions";
