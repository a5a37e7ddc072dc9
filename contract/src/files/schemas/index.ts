export * from "./aircraft-schema";
export * from "./airworthiness-schema";
export * from "./crew-schema";
export * from "./deferral-schema";
export * from "./item-schema";
export * from "./loading-schema";
export * from "./place-schemas";
export * from "./type-schema";
