export * from "./air-today";
export * from "./forecast-at";
export * from "./judge-report";
export * from "./light";
export * from "./night-begins";
export * from "./present-hazards";
export * from "./report";
export * from "./weather-inputs";
