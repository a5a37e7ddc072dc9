import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ROOT } from "../paths";
import { freePort } from "../site/ports";

/** The real server in a separate process, started as a user does, with a temporary data directory. */
export class ServerProcess {
  #child: ChildProcess | undefined;
  #port = 0;
  readonly directory = mkdtempSync(join(tmpdir(), "cravix-attack-"));
  said = "";

  async start(): Promise<void> {
    this.#port ||= await freePort();
    this.said = "";
    const child = spawn(process.execPath, ["tools/bootstrap.mjs", "start"], {
      cwd: ROOT,
      env: { ...process.env, PORT: String(this.#port), CRAVIX_DATA: this.directory },
      stdio: ["ignore", "pipe", "pipe"],
    });
    this.#child = child;
    await new Promise<void>((resolve, reject) => {
      const hear = (data: Buffer) => {
        this.said += data;
        if (this.said.includes("Ready.")) resolve();
      };
      child.stdout?.on("data", hear);
      child.stderr?.on("data", hear);
      child.once("exit", (code) => reject(new Error(`the server exited with code ${code}: ${this.said}`)));
    });
  }

  get url(): string {
    return `http://127.0.0.1:${this.#port}`;
  }

  get alive(): boolean {
    return this.#child?.exitCode === null && this.#child.signalCode === null;
  }

  get databaseSettings(): { port: number; password: string; pid: number } {
    return JSON.parse(readFileSync(join(this.directory, "database.json"), "utf8"));
  }

  async kill(signal: "SIGKILL" | "SIGINT"): Promise<void> {
    if (!this.#child || !this.alive) return;
    const gone = new Promise((resolve) => this.#child?.once("exit", resolve));
    this.#child.kill(signal);
    await gone;
  }

  async remove(): Promise<void> {
    await this.kill("SIGINT");
    rmSync(this.directory, { recursive: true, force: true });
  }
}
