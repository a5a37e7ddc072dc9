export * from "./compare-runways";
export * from "./with-intersections";
export * from "./worst-wind";
