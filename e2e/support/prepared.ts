import { Cravix } from "./cravix";
import { PREPARED } from "./own-directory";
import { keepPreparedSnapshot, withDatabase } from "./restore-snapshot";

/**
 * Prepares a data directory before all tests, as the first start with the demo leaves it. Each test server starts with a copy, so
 * that the database is set up once and can be reset. Returns its cleanup.
 */
export default async function prepare(): Promise<() => Promise<void>> {
  const cravix = await Cravix.launch();
  await withDatabase(cravix.directory, keepPreparedSnapshot);
  await cravix.end("SIGINT");
  process.env[PREPARED] = cravix.directory;
  return () => cravix.remove();
}
