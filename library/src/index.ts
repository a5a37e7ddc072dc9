export { type ShippedLibrary, shippedLibrary } from "./shipped-library";
