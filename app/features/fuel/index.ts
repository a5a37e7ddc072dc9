/** Refuelling, during a preflight or not. */

export { CsvFaults } from "./receipt-parts";
export { Refuel } from "./refuel";
