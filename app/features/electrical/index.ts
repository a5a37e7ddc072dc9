/** Battery and electrical loads. */

export { BatteryBar } from "./battery-bar";
export { useLoads } from "./use-loads";
