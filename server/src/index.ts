export { type Api, type AppOptions, createApp } from "./app";
export {
  type Database,
  type DatabaseOptions,
  databaseAnswers,
  openDatabase,
} from "./db/database";
export { HOME_GROUP } from "./db/schema/group";
export { acceptEvents } from "./events/accept-events";
export { appendEvents } from "./events/append-events";
export { checkProjections, rebuildOutdated } from "./events/check-projections";
export { migrateDatabase } from "./events/migrate-database";
export { putList } from "./events/put-list";
export { readFleet } from "./fleet/read-fleet";
export { writeFile } from "./fleet/write-file";
export { importFluids } from "./fluids/write-fluids";
export { listen } from "./serve";
export { endHeavyWork } from "./worker-pool/run-in-worker";
