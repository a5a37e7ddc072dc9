import { Cravix } from "./cravix";
import { PREPARED } from "./own-directory";
import { keepAsPrepared, withDatabase } from "./restore-snapshot";

/**
 * Before all tests: a data directory as the first start on a fresh machine leaves it, with the demo. Each server of the tests begins with a copy, so that
 * a database is set up once and not twenty times, and can be put back to it. Returns what clears it away.
 */
export default async function prepare(): Promise<() => Promise<void>> {
  const cravix = await Cravix.launch();
  await withDatabase(cravix.directory, keepAsPrepared);
  await cravix.end("SIGINT");
  process.env[PREPARED] = cravix.directory;
  return () => cravix.remove();
}
