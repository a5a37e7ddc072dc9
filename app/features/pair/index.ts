/** Two people on one preflight. */

export { PairBar } from "./pair-bar";
export { SecondPersonPanel } from "./second-person-panel";
