import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "../../tools/src/site/ports";
import { ownDirectory, PREPARED } from "./own-directory";
import { databaseSettings, restoreSnapshot, withDatabase } from "./restore-snapshot";

const ROOT = join(__dirname, "..", "..");

/** Runs the real server, started by a user's command, with its own data directory. */
export class Cravix {
  /** An instance passed from one test file to the next: starting one costs as much as twenty pages. */
  static #free: Cravix | undefined;
  /** Whether instances are kept for reuse. */
  static #keeps = false;
  #child: ChildProcess | undefined;
  /** Whether it can be reset. Not after a test has ended it or modified its database process. */
  #asPrepared = false;
  output = "";
  constructor(
    readonly port: number,
    readonly directory = mkdtempSync(join(tmpdir(), "cravix-e2e-")),
  ) {}

  /** Starts an instance with the demo, as after a first start, for exclusive use until removed. */
  static async launch(): Promise<Cravix> {
    const free = Cravix.#free;
    Cravix.#free = undefined;
    if (free) {
      await withDatabase(free.directory, restoreSnapshot);
      return free;
    }
    for (let attempt = 1; ; attempt++) {
      const cravix = new Cravix(await freePort(), ownDirectory());
      try {
        await cravix.start();
        cravix.#asPrepared = process.env[PREPARED] !== undefined;
        return cravix;
      } catch (error) {
        // Another test server may have taken the free port.
        if (attempt === 3 || !(error as Error).message.includes("EADDRINUSE")) throw error;
        await cravix.remove();
      }
    }
  }

  get url(): string {
    return `http://localhost:${this.port}`;
  }

  /** Resolves when it is ready; rejects with its output if it ends first. */
  start(): Promise<void> {
    this.output = "";
    const child = spawn(process.execPath, ["tools/bootstrap.mjs", "start"], {
      cwd: ROOT,
      env: { ...process.env, PORT: String(this.port), CRAVIX_DATA: this.directory },
      stdio: ["ignore", "pipe", "pipe"],
    });
    this.#child = child;
    return new Promise((resolve, reject) => {
      const hear = (data: Buffer) => {
        this.output += data;
        if (this.output.includes("Ready.")) resolve();
      };
      child.stdout?.on("data", hear);
      child.stderr?.on("data", hear);
      child.once("exit", (code) => reject(new Error(`ended with ${code}: ${this.output}`)));
    });
  }

  /** Ends the server process; its database survives SIGKILL, as in reality. */
  async end(signal: "SIGINT" | "SIGKILL" | "SIGTERM"): Promise<void> {
    const child = this.#child;
    this.#asPrepared = false;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill(signal);
    await gone;
  }

  /** Process id of its database, for tests that interfere with it. */
  get databasePid(): number {
    this.#asPrepared = false;
    return databaseSettings(this.directory).pid;
  }

  /** Events of one preflight, queried from the database. */
  eventsOnRecord(streamId: string): Promise<{ id: string; type: string }[]> {
    return withDatabase(this.directory, async (database) => {
      const [rows] = await database.query("SELECT id, type FROM event WHERE stream_id = ? ORDER BY id", [
        streamId,
      ]);
      return rows as { id: string; type: string }[];
    });
  }

  async api<T>(path: string): Promise<T> {
    return (await fetch(`${this.url}/api/v1${path}`)).json() as Promise<T>;
  }

  /** Releases the instance: kept for reuse if no test has interfered with it, else deleted. */
  async remove(): Promise<void> {
    if (Cravix.#keeps && this.#asPrepared && !Cravix.#free) Cravix.#free = this;
    else await this.#clearAway();
  }

  /** Keeps released instances for reuse, until `removeFree`. */
  static keepFree(): void {
    Cravix.#keeps = true;
  }

  /** Deletes the kept instance and stops keeping. */
  static async removeFree(): Promise<void> {
    Cravix.#keeps = false;
    const free = Cravix.#free;
    Cravix.#free = undefined;
    if (free) await free.#clearAway();
  }

  async #clearAway(): Promise<void> {
    await this.end("SIGINT");
    rmSync(this.directory, { recursive: true, force: true });
  }
}
