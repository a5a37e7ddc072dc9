require("tsx/cjs");
const { startDatabase } = require("../src/site/mariadb.ts");
const { join } = require("node:path");

/** One MariaDB for all server tests, in its own directory; each test file creates its own schema. */
module.exports = async () => {
  const running = await startDatabase(join(__dirname, "..", "..", ".cravix", "unit"));
  globalThis.__CRAVIX_DATABASE__ = running;
  process.env.CRAVIX_TEST_DATABASE = JSON.stringify(running.options);
};
