export * from "./compare-runways";
export * from "./worst-wind";
