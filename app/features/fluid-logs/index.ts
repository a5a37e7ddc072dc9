/** Fuel and oil put in outside a preflight, and their history. */

export { AddOilForm, useOilAddition } from "./add-oil-form";
