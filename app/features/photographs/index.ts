/** Photographs of a discrepancy. */

export { Photographs } from "./photographs";
