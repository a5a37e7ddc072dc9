import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { crew } from "@cravix/demo";
import { listen, migrateDatabase, openDatabase } from "@cravix/server";
import pino from "pino";
import { runTask, SetupError } from "./fail";
import { loadDemoIfEmpty } from "./load-demo";
import { type RunningDatabase, startDatabase } from "./mariadb";
import { dataDirectory, WEB_ROOT } from "./paths";
import { portTrouble } from "./ports";
import { buildWebIfStale } from "./web-build";

const from = performance.now();
const step = (line: string) =>
  console.log(`[${((performance.now() - from) / 1000).toFixed(1).padStart(5)} s] ${line}`);

await runTask(async () => {
  const port = readPort();
  const host = process.env.HOST ?? "127.0.0.1";
  const trouble = await portTrouble(port, host);
  if (trouble === "EADDRINUSE")
    throw new SetupError(
      `port ${port} is taken by another program. Set another: PORT=${port + 10} npm start`,
    );
  if (trouble)
    throw new SetupError(
      `port ${port} on ${host} cannot be used (${trouble}). Set another with PORT and HOST.`,
    );
  const directory = dataDirectory();
  const marker = claim(directory);

  step("Starting the database …");
  let running: RunningDatabase = await startDatabase(directory);
  if (running.adopted) step("It was still running: taken over.");
  writeFileSync(marker, String(process.pid));
  const database = openDatabase(running.options);
  let stopping = false;
  const stop = async (code: number) => {
    if (stopping) return;
    stopping = true;
    await web?.close();
    await database.close().catch(() => undefined);
    await running.stop();
    rmSync(marker, { force: true });
    process.exit(code);
  };
  let web: Awaited<ReturnType<typeof listen>> | undefined;
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.on(signal, () => {
      if (!stopping) console.log("\nStopping the server and its database …");
      void stop(0);
    });

  try {
    await migrateDatabase(database);
    if (await loadDemoIfEmpty(database, new Date())) step("Loaded the demo: the Saltgrass Flying Group.");
    if (!existsSync(join(WEB_ROOT, ".sources"))) step("Building the interface, this takes a minute …");
    if (await buildWebIfStale()) step("Built the interface.");
    const logger = pino({ level: process.env.LOG_LEVEL ?? "warn" });
    web = await listen({ database, logger, webRoot: WEB_ROOT }, port, host);
  } catch (error) {
    await running.stop();
    rmSync(marker, { force: true });
    throw error;
  }
  step("Ready.");
  console.log(`\n  Cravix   http://${host === "127.0.0.1" ? "localhost" : host}:${web.port}`);
  console.log(`  Crew     ${crew.members.map((m) => `${m.name} (${m.role})`).join(", ")}`);
  console.log("  Pick a name when you start; there are no passwords yet. Ctrl-C stops everything.\n");

  // The database may be killed or fall over; the server says so in its health and brings it back.
  let restarting = false;
  setInterval(async () => {
    if (stopping || restarting || running.alive()) return;
    restarting = true;
    console.error("cravix: the database stopped; starting it again.");
    try {
      const again = await startDatabase(directory, running.options.port);
      running = again;
      step("The database is back.");
    } catch (error) {
      console.error(`cravix: ${(error as Error).message}`);
    }
    restarting = false;
  }, 1000).unref();
});

function readPort(): number {
  const text = process.env.PORT ?? "8080";
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new SetupError(`PORT is ${text}; it must be a number from 1 to 65535.`);
  return port;
}

/** One server a data directory: a second one would stop the first one's database. */
function claim(directory: string): string {
  const marker = join(directory, "server.pid");
  if (existsSync(marker)) {
    const pid = Number(readFileSync(marker, "utf8"));
    try {
      if (pid && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("bootstrap.mjs"))
        throw new SetupError(
          `Cravix already runs on ${directory} (process ${pid}). Stop it first, or set CRAVIX_DATA to another directory.`,
        );
    } catch (error) {
      if (error instanceof SetupError) throw error;
      // That process is gone: it was killed and could not take its marker away.
    }
  }
  return marker;
}
