export { airworthinessFiles } from "./airworthiness";
export { flightEvents, yearOfFlights } from "./flights";
export { HALDEN, HEALTHY } from "./healthy-readings";
export { type History, trainerHistory } from "./history";
export { loadingFiles } from "./loading";
export { pastYear } from "./past-year";
export { personEvents } from "./people";
export {
  airfield,
  compositions,
  crew,
  fields,
  group,
  qxTar,
  rules,
  rulesWithList,
  scenarioFiles,
  tarrow4,
  trainerEquipment,
  twinEquipment,
} from "./scenario";
export { seededRandom } from "./seeded-random";
