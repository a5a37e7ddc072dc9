// Of all kinds of ids Cravix makes one: ordered by time.
export { default as v7 } from "../../node_modules/uuid/dist/esm-browser/v7.js";
