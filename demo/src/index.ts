export { type History, trainerHistory } from "./history";
export { pastYear } from "./past-year";
export { airfield, crew, group, qxTar, rules, scenarioFiles, tarrow4 } from "./scenario";
export { seededRandom } from "./seeded-random";
