import { type ChildProcess, execFileSync, spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import {
  chownSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { statfs } from "node:fs/promises";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { type DatabaseOptions, databaseAnswers, openDatabase } from "@cravix/server";
import { SetupError } from "../fail";
import { makeDirectory } from "../paths";
import { freePort } from "./ports";

const START_TIMEOUT_MS = 60_000;
const NEEDED_MB = 400;
const PATH = `${process.env.PATH ?? ""}:/usr/sbin:/usr/local/sbin`;

export interface RunningDatabase {
  options: DatabaseOptions;
  pid: number;
  /** Whether it was found running (its server had been killed) rather than started. */
  adopted: boolean;
  alive(): boolean;
  /** Asks it to end, and ends it where it does not: within ten seconds. */
  stop(): Promise<void>;
  /** Ends it at once; what was on record is on record. */
  kill(): void;
}

interface Settings {
  password: string;
  port: number;
  pid: number;
}

/**
 * Starts a MariaDB of the project's own on loopback, with its data in `directory`. One that still runs there, because its server
 * was killed, is taken over. `port` asks for a certain port, where connections to it are already open.
 * Throws SetupError with one line that says what to do.
 */
export async function startDatabase(directory: string, port?: number): Promise<RunningDatabase> {
  prepareDirectory(directory);
  const settingsFile = join(directory, "database.json");
  const dataDir = join(directory, "mariadb");
  const settings = readSettings(settingsFile);
  const known = settings.port !== 0;
  const here = whatRunsHere(settings, dataDir);
  if (here) {
    Object.assign(settings, here);
    const running = handle(settings, undefined, true);
    // One whose password is lost lets nobody in: it is started anew with another.
    if (known && (await waitUntilReady(running))) {
      writeSettings(settingsFile, settings);
      return running;
    }
    await running.stop();
  }
  const { bsize, bavail } = await statfs(directory);
  const freeMb = Math.floor((bsize * bavail) / 1e6);
  if (freeMb < NEEDED_MB)
    throw new SetupError(
      `only ${freeMb} MB free for ${directory}; the database needs ${NEEDED_MB} MB. Free some space, or set CRAVIX_DATA to a directory on another disk.`,
    );

  const user = databaseUser(directory);
  if (!existsSync(join(dataDir, "mysql"))) install(dataDir, user);
  const log = join(directory, "mariadb.log");
  for (let attempt = 1; ; attempt++) {
    settings.port = attempt === 1 && port ? port : await freePort();
    const child = launch({ dataDir, directory, log, settings, user });
    settings.pid = child.pid ?? 0;
    writeSettings(settingsFile, settings);
    const running = handle(settings, child, false);
    if (await waitUntilReady(running)) return running;
    await running.stop();
    if (attempt >= 2)
      throw new SetupError(`the database did not start: ${lastLogError(log)} (full log: ${log})`);
  }
}

/** The settings of a database; new ones where there are none, or where a full disk left half of them: the database takes a new password at its start. */
function readSettings(file: string): Settings {
  try {
    const { password, port, pid } = JSON.parse(readFileSync(file, "utf8")) as Settings;
    if (typeof password === "string" && password.length >= 20) return { password, port, pid };
  } catch {
    // None, or not whole.
  }
  return { password: randomBytes(24).toString("hex"), port: 0, pid: 0 };
}

/** Written beside and put in place: never half of it. */
function writeSettings(file: string, settings: Settings): void {
  writeFileSync(`${file}.new`, JSON.stringify(settings), { mode: 0o600 });
  renameSync(`${file}.new`, file);
}

function prepareDirectory(directory: string): void {
  try {
    makeDirectory(directory);
    writeFileSync(join(directory, ".writable"), "");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOSPC") throw error;
    throw new SetupError(
      `${directory} is not writable. Give this user write access, or set CRAVIX_DATA to another directory.`,
    );
  }
}

/** Root hands the database to the user mysql where that user can reach the directory; anyone else runs it as themselves. */
function databaseUser(directory: string): { uid: number; gid: number } | undefined {
  if (process.getuid?.() !== 0) return undefined;
  try {
    const id = (flag: string) => Number(execFileSync("id", [flag, "mysql"], { encoding: "utf8" }));
    const user = { uid: id("-u"), gid: id("-g") };
    const reach = spawnSync("test", ["-x", directory], user);
    return reach.status === 0 ? user : undefined;
  } catch {
    return undefined;
  }
}

/**
 * A folder for what the database puts aside. Its own: a MariaDB that starts clears away what it takes for its own leavings, and in the machine's folder
 * that is what others are working with.
 */
function ownTemporary(dataDir: string, user: { uid: number; gid: number } | undefined): string {
  const directory = join(dirname(dataDir), "database-tmp");
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  if (user) chownSync(directory, user.uid, user.gid);
  return directory;
}

function install(dataDir: string, user: { uid: number; gid: number } | undefined): void {
  rmSync(dataDir, { recursive: true, force: true });
  mkdirSync(dataDir, { mode: 0o700 });
  if (user) chownSync(dataDir, user.uid, user.gid);
  const who = user || process.getuid?.() !== 0 ? [] : ["--user=root"];
  const run = spawnSync(
    "mariadb-install-db",
    [
      "--no-defaults",
      `--datadir=${dataDir}`,
      "--auth-root-authentication-method=normal",
      "--skip-test-db",
      ...who,
    ],
    {
      ...user,
      cwd: tmpdir(),
      encoding: "utf8",
      env: { ...process.env, PATH, TMPDIR: ownTemporary(dataDir, user) },
    },
  );
  if (run.status === 0) return;
  rmSync(dataDir, { recursive: true, force: true });
  const why = (run.stderr || run.stdout || String(run.error)).trim().split("\n").at(-1);
  throw new SetupError(`the database could not be set up: ${why}`);
}

function launch(given: {
  dataDir: string;
  directory: string;
  log: string;
  settings: Settings;
  user: { uid: number; gid: number } | undefined;
}): ChildProcess {
  const { dataDir, directory, log, settings, user } = given;
  const init = join(directory, "database-init.sql");
  const secret = settings.password;
  writeFileSync(
    init,
    [
      "CREATE DATABASE IF NOT EXISTS cravix CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;",
      `CREATE OR REPLACE USER cravix@'127.0.0.1' IDENTIFIED BY '${secret}';`,
      "GRANT ALL ON `cravix%`.* TO cravix@'127.0.0.1';",
      `ALTER USER root@localhost IDENTIFIED BY '${secret}';`,
      "",
    ].join("\n"),
    { mode: 0o600 },
  );
  if (user) chownSync(init, user.uid, user.gid);
  const output = openSync(log, "w");
  const who = user || process.getuid?.() !== 0 ? [] : ["--user=root"];
  // A socket's path may have 107 characters at most, so it cannot live in a data directory of any length.
  const socket = join(
    tmpdir(),
    `cravix-${createHash("sha256").update(dataDir).digest("hex").slice(0, 12)}.sock`,
  );
  const child = spawn(
    "mariadbd",
    [
      "--no-defaults",
      `--datadir=${dataDir}`,
      `--port=${settings.port}`,
      "--bind-address=127.0.0.1",
      `--socket=${socket}`,
      `--init-file=${init}`,
      `--tmpdir=${ownTemporary(dataDir, user)}`,
      "--skip-name-resolve",
      "--performance-schema=OFF",
      "--innodb-log-file-size=48M",
      "--max-allowed-packet=64M",
      ...who,
    ],
    // A process group of its own: Ctrl-C reaches the server first, which then stops the database in order.
    {
      ...user,
      cwd: dirname(dataDir),
      detached: true,
      stdio: ["ignore", output, output],
      env: { ...process.env, PATH },
    },
  );
  child.once("error", () => undefined);
  child.unref();
  return child;
}

function handle(settings: Settings, child: ChildProcess | undefined, adopted: boolean): RunningDatabase {
  const { pid, port, password } = settings;
  const alive = () => {
    if (child && (child.exitCode !== null || child.signalCode !== null || !child.pid)) return false;
    try {
      process.kill(pid, 0);
      return true;
    } catch {
      return false;
    }
  };
  return {
    options: { host: "127.0.0.1", port, user: "cravix", password, database: "cravix" },
    pid,
    adopted,
    alive,
    stop: async () => {
      if (!pid || !alive()) return;
      // One that was stopped in its tracks hears nothing before it goes on.
      process.kill(pid, "SIGCONT");
      process.kill(pid, "SIGTERM");
      for (let i = 0; i < 100 && alive(); i++) await sleep(100);
      if (alive()) process.kill(pid, "SIGKILL");
      for (let i = 0; i < 20 && alive(); i++) await sleep(50);
    },
    kill: () => {
      if (pid && alive()) process.kill(pid, "SIGKILL");
    },
  };
}

async function waitUntilReady(running: RunningDatabase): Promise<boolean> {
  const until = Date.now() + START_TIMEOUT_MS;
  while (running.alive() && Date.now() < until) {
    const database = openDatabase(running.options);
    const answers = await databaseAnswers(database);
    await database.close().catch(() => undefined);
    if (answers) return true;
    await sleep(150);
  }
  return false;
}

/**
 * The database that still runs in this folder: as it was written down, or found among the processes where its server was killed in the very moment between starting it and writing that
 * down.
 */
function whatRunsHere({ pid, port }: Settings, dataDir: string): { pid: number; port: number } | undefined {
  if (pid && commandHere(pid, dataDir)) return { pid, port };
  let all: string[] = [];
  try {
    all = readdirSync("/proc").filter((name) => /^\d+$/.test(name));
  } catch {
    // A system without such a folder: then what was written down is all that is known.
  }
  for (const name of all) {
    const told = /--port=(\d+)/.exec(commandHere(Number(name), dataDir) ?? "");
    if (told) return { pid: Number(name), port: Number(told[1]) };
  }
  return undefined;
}

/** How a database of this folder was started; undefined for any other process. */
function commandHere(pid: number, dataDir: string): string | undefined {
  try {
    const parts = readFileSync(`/proc/${pid}/cmdline`, "utf8").split("\0");
    return parts[0]?.includes("mariadbd") && parts.includes(`--datadir=${dataDir}`)
      ? parts.join(" ")
      : undefined;
  } catch {
    return undefined;
  }
}

function lastLogError(log: string): string {
  if (!existsSync(log)) return "no log output";
  const lines = readFileSync(log, "utf8").trim().split("\n");
  return (
    lines.findLast((line) => line.includes("[ERROR]"))?.replace(/^.*\[ERROR\] /, "") ??
    lines.at(-1) ??
    "no log output"
  );
}
