import { existsSync } from "node:fs";
import { join } from "node:path";
import { setInterval as every, setTimeout as sleep } from "node:timers/promises";
import { crew } from "@cravix/demo";
import { listen, migrateDatabase, openDatabase } from "@cravix/server";
import pino from "pino";
import { runTask, SetupError } from "./fail";
import { dataDirectory, WEB_ROOT } from "./paths";
import { acquireLock, nameHolder } from "./site/acquire-lock";
import { loadDemoIfEmpty } from "./site/load-demo";
import { type RunningDatabase, startDatabase } from "./site/mariadb";
import { portError } from "./site/ports";
import { buildWebIfStale } from "./site/web-build";

const from = performance.now();
const step = (line: string) =>
  console.log(`[${((performance.now() - from) / 1000).toFixed(1).padStart(5)} s] ${line}`);

await runTask(async () => {
  const port = readPort();
  const host = process.env.HOST ?? "127.0.0.1";
  const trouble = await portError(port, host);
  if (trouble === "EADDRINUSE")
    throw new SetupError(
      `port ${port} is in use by another program. Choose another: PORT=${port + 10} npm start`,
    );
  if (trouble)
    throw new SetupError(
      `cannot listen on port ${port} of ${host} (${trouble}). Choose another with PORT and HOST.`,
    );
  const directory = dataDirectory();
  const release = await acquireLock(directory);

  step("Starting the database …");
  let running: RunningDatabase = await startDatabase(directory);
  if (running.adopted) step("The database was still running and is reused.");
  nameHolder(directory);
  const database = openDatabase(running.options);
  let stopping = false;
  let restarting: Promise<void> | undefined;
  const stop = async (code: number) => {
    if (stopping) return;
    stopping = true;
    // Each step has a timeout, so that a hanging database does not block the exit; its log keeps the data.
    await within(3000, web?.close());
    await within(3000, database.close());
    // Wait for a database being restarted, or it would be left running.
    await within(20_000, restarting);
    await running.stop();
    release();
    process.exit(code);
  };
  let web: Awaited<ReturnType<typeof listen>> | undefined;
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.on(signal, () => {
      if (stopping) {
        // Second signal: stop waiting.
        running.kill();
        process.exit(1);
      }
      console.log("\nStopping the server and its database …");
      void stop(0);
    });

  try {
    await migrateDatabase(database);
    if (await loadDemoIfEmpty(database, new Date())) step("Loaded the demo: the Saltgrass Flying Group.");
    if (!existsSync(join(WEB_ROOT, ".sources"))) step("Building the interface (about a minute) …");
    if (await buildWebIfStale()) step("Built the interface.");
    const logger = pino({ level: process.env.LOG_LEVEL ?? "warn" });
    web = await listen({ database, logger, hosts: ownNames(host), webRoot: WEB_ROOT }, port, host);
  } catch (error) {
    await running.stop();
    release();
    throw error;
  }
  step("Ready.");
  console.log(`\n  Cravix   http://${host === "127.0.0.1" ? "localhost" : host}:${web.port}`);
  console.log(`  Crew     ${crew.members.map((m) => `${m.name} (${m.role})`).join(", ")}`);
  console.log("  Select a name in the browser; there are no passwords yet. Press Ctrl-C to stop.\n");

  // Restarts a database that was killed or crashed, with increasing delays.
  let waitS = 1;
  let next = 0;
  let said = "";
  const bringBack = async () => {
    if (!said) console.error("cravix: the database stopped. Restarting it.");
    try {
      running = await startDatabase(directory, running.options.port);
      step("The database is running again.");
      waitS = 1;
      said = "";
    } catch (error) {
      // One line, once per problem.
      const words = error instanceof SetupError ? error.message : (error as Error).message;
      if (words !== said) console.error(`cravix: ${words} Trying again.`);
      said = words;
      waitS = Math.min(waitS * 2, 60);
      next = Date.now() + waitS * 1000;
    }
    restarting = undefined;
  };
  for await (const _ of every(1000, undefined, { ref: false }))
    if (!(stopping || restarting || running.alive() || Date.now() < next)) restarting = bringBack();
});

/** Host names accepted besides localhost and IP addresses. */
function ownNames(host: string): string[] {
  const told = (process.env.CRAVIX_HOSTS ?? "").split(",").map((name) => name.trim().toLowerCase());
  return [host.toLowerCase(), ...told].filter((name) => name !== "");
}

/** Waits for a promise with a timeout in milliseconds. */
async function within(ms: number, work: Promise<unknown> | undefined): Promise<void> {
  await Promise.race([Promise.resolve(work).catch(() => undefined), sleep(ms, undefined, { ref: false })]);
}

function readPort(): number {
  const text = process.env.PORT ?? "8080";
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new SetupError(`PORT is ${text}; it must be a number from 1 to 65535.`);
  return port;
}
