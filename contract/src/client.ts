// Types and ids for pages, without the validation schemas.
export * from "./api/api-types";
export * from "./bounds/plain-text";
export * from "./events/new-id";
export type { Refusal } from "./events/refusal";
export * from "./files/phase-name";
export * from "./permissions";
