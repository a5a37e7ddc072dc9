export * from "./check-load";
export * from "./envelope";
export * from "./load-path";
export * from "./loading-profile";
export * from "./loading-risk";
export * from "./loading-words";
export * from "./smallest-change";
