import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import mysql from "mysql2/promise";
import { freePort } from "../../tools/src/site/ports";
import { ownDirectory } from "./own-directory";

const ROOT = join(__dirname, "..", "..");

/** The real thing, started by the same command as a user's, with a data directory of its own. */
export class Cravix {
  #child: ChildProcess | undefined;
  output = "";
  constructor(
    readonly port: number,
    readonly directory = mkdtempSync(join(tmpdir(), "cravix-e2e-")),
  ) {}

  /** With the demo loaded, as it is after the first start. */
  static async launch(): Promise<Cravix> {
    for (let attempt = 1; ; attempt++) {
      const cravix = new Cravix(await freePort(), ownDirectory());
      try {
        await cravix.start();
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
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill(signal);
    await gone;
  }

  get databasePid(): number {
    return this.settings.pid;
  }

  private get settings(): { port: number; password: string; pid: number } {
    return JSON.parse(readFileSync(join(this.directory, "database.json"), "utf8"));
  }

  /** The events of one preflight as the database holds them, asked for directly. */
  async eventsOnRecord(streamId: string): Promise<{ id: string; type: string }[]> {
    const { port, password } = this.settings;
    const connection = await mysql.createConnection({
      host: "127.0.0.1",
      port,
      user: "cravix",
      password,
      database: "cravix",
    });
    const [rows] = await connection.query("SELECT id, type FROM event WHERE stream_id = ? ORDER BY id", [
      streamId,
    ]);
    await connection.end();
    return rows as { id: string; type: string }[];
  }

  async api<T>(path: string): Promise<T> {
    return (await fetch(`${this.url}/api/v1${path}`)).json() as Promise<T>;
  }

  async remove(): Promise<void> {
    await this.end("SIGINT");
    rmSync(this.directory, { recursive: true, force: true });
  }
}
