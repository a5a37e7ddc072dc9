import { createHash } from "node:crypto";
import { existsSync, readFileSync, realpathSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import { SetupError } from "../fail";
import { makeDirectory } from "../paths";

/**
 * Locks a data directory for one server: a second one would stop the first one's database. The lock is an abstract socket, which
 * the system grants to one process and releases when it ends in any way. Returns a function that releases it.
 */
export async function acquireLock(directory: string): Promise<() => void> {
  const marker = join(directory, "server.pid");
  try {
    makeDirectory(directory);
  } catch {
    // The later write fails with a better message.
    return () => undefined;
  }
  const name = createHash("sha256").update(realpathSync(directory)).digest("hex").slice(0, 24);
  const held = await new Promise<ReturnType<typeof createServer> | undefined>((resolve, reject) => {
    const server = createServer();
    server.once("error", (error: NodeJS.ErrnoException) =>
      error.code === "EADDRINUSE" ? resolve(undefined) : reject(error),
    );
    server.listen({ path: `\0cravix-${name}` }, () => resolve(server));
  });
  if (!held) {
    const pid = existsSync(marker) ? readFileSync(marker, "utf8") : "";
    throw new SetupError(
      `Cravix already runs on ${directory}${pid && ` (process ${pid})`}. Stop it first, or set CRAVIX_DATA to another directory.`,
    );
  }
  held.unref();
  return () => {
    rmSync(marker, { force: true });
    held.close();
  };
}

/** Records the running process, for the second one's error message. */
export function nameHolder(directory: string): void {
  writeFileSync(join(directory, "server.pid"), String(process.pid));
}
