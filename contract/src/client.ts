// Types and ids for pages, without the validation schemas.
export * from "./api/api-types";
export type { Refusal } from "./api/refusal";
export * from "./bounds/plain-text";
export * from "./events/new-id";
export * from "./files/phase-name";
export * from "./permissions";
