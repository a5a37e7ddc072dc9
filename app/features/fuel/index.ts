/** Refuelling, during a preflight or not. */

export { CsvFaults, Refuel } from "./refuel";
