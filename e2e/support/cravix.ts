import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { freePort } from "../../tools/src/site/ports";
import { ownDirectory, PREPARED } from "./own-directory";
import { databaseSettings, restoreSnapshot, withDatabase } from "./restore-snapshot";

const ROOT = join(__dirname, "..", "..");

/** The real thing, started by the same command as a user's, with a data directory of its own. */
export class Cravix {
  /** One that a file of tests is done with, and that the next may have: a start costs as much as twenty pages. */
  static #free: Cravix | undefined;
  /** Whether somebody clears away what is kept: without, nothing is. */
  static #keeps = false;
  #child: ChildProcess | undefined;
  /** Whether it can be put back to what it was. What comes of it once a test has ended it or its database is nobody else's. */
  #asPrepared = false;
  output = "";
  constructor(
    readonly port: number,
    readonly directory = mkdtempSync(join(tmpdir(), "cravix-e2e-")),
  ) {}

  /** With the demo loaded, as it is after the first start; nobody else has it until it is removed. */
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
        // Between asking for a free port and taking it another server of the tests may have taken it.
        if (attempt === 3 || !(error as Error).message.includes("EADDRINUSE")) throw error;
        await cravix.remove();
      }
    }
  }

  get url(): string {
    return `http://localhost:${this.port}`;
  }

  /** Resolves when it says that it is ready; rejects with its words when it ends before that. */
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

  /** Ends the server's process; its database goes on after SIGKILL, as it would in life. */
  async end(signal: "SIGINT" | "SIGKILL" | "SIGTERM"): Promise<void> {
    const child = this.#child;
    this.#asPrepared = false;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill(signal);
    await gone;
  }

  /** The process of its database, for a test that does something to it. */
  get databasePid(): number {
    this.#asPrepared = false;
    return databaseSettings(this.directory).pid;
  }

  /** The events of one preflight as the database holds them, asked for directly. */
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

  /** Nobody needs it any more: kept for whoever comes next, where no test has laid hands on it, else cleared away. */
  async remove(): Promise<void> {
    if (Cravix.#keeps && this.#asPrepared && !Cravix.#free) Cravix.#free = this;
    else await this.#clearAway();
  }

  /** From now on one that is done with is kept for the next, until `removeFree`. */
  static keepFree(): void {
    Cravix.#keeps = true;
  }

  /** Clears away the one that is kept; none is from then on. */
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
