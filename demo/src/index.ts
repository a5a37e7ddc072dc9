export { type History, trainerHistory } from "./history";
export { airfield, crew, group, qxTar, rules, scenarioFiles, tarrow4 } from "./scenario";
export { seededRandom } from "./seeded-random";
