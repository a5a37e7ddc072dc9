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
  /** True if it was already running, after its server was killed. */
  adopted: boolean;
  alive(): boolean;
  /** Shuts it down, and kills it after ten seconds. */
  stop(): Promise<void>;
  /** Kills it; recorded data is safe. */
  kill(): void;
}

interface Settings {
  password: string;
  port: number;
  pid: number;
}

/**
 * Starts a MariaDB on loopback with its data in `directory`. One still running there after its server was killed is reused.
 * `port` requests a port to which connections are already open. Throws SetupError with one line that says what to do.
 */
export async function startDatabase(directory: string, port?: number): Promise<RunningDatabase> {
  prepareDirectory(directory);
  const settingsFile = join(directory, "database.json");
  const dataDir = join(directory, "mariadb");
  const settings = readSettings(settingsFile);
  const known = settings.port !== 0;
  const here = runningProcess(settings, dataDir);
  if (here) {
    Object.assign(settings, here);
    const running = handle(settings, undefined, true);
    // With a lost password nobody can connect: restart it with a new one.
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

/** Settings of a database; new ones if missing or truncated by a full disk: the database accepts a new password at its start. */
function readSettings(file: string): Settings {
  try {
    const { password, port, pid } = JSON.parse(readFileSync(file, "utf8")) as Settings;
    if (typeof password === "string" && password.length >= 20) return { password, port, pid };
  } catch {
    // Missing or incomplete.
  }
  return { password: randomBytes(24).toString("hex"), port: 0, pid: 0 };
}

/** Written aside and renamed, so that it is never incomplete. */
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

/** As root the database runs as the user mysql if that user can reach the directory; otherwise as the current user. */
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
 * Temporary directory of the database. Separate, because MariaDB deletes what looks like its own leftovers at start, and in the
 * system's directory that could belong to others.
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
  // Socket paths are limited to 107 characters, so it cannot be in the data directory.
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
    // A separate process group: Ctrl-C reaches the server, which stops the database in order.
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
      // A stopped process receives signals only after continuing.
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
 * Finds the database still running in this directory: from its settings, or among the processes if its server was killed before
 * writing them.
 */
function runningProcess({ pid, port }: Settings, dataDir: string): { pid: number; port: number } | undefined {
  if (pid && commandHere(pid, dataDir)) return { pid, port };
  let all: string[] = [];
  try {
    all = readdirSync("/proc").filter((name) => /^\d+$/.test(name));
  } catch {
    // Without /proc only the settings are known.
  }
  for (const name of all) {
    const told = /--port=(\d+)/.exec(commandHere(Number(name), dataDir) ?? "");
    if (told) return { pid: Number(name), port: Number(told[1]) };
  }
  return undefined;
}

/** Command line of a database of this directory; undefined for any other process. */
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
