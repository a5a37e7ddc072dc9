// Only the time-ordered version is used.
export { default as v7 } from "../../node_modules/uuid/dist/esm-browser/v7.js";
