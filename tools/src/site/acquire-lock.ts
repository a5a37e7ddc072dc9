import { createHash } from "node:crypto";
import { existsSync, readFileSync, realpathSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import { join } from "node:path";
import { SetupError } from "../fail";
import { makeDirectory } from "../paths";

/**
 * One server a data directory: a second one would stop the first one's database. The claim is a socket that the system itself gives to one and
 * takes back from whoever ends, however: of two starts at one moment one has it, and none is left behind by a kill. Returns how to let go.
 */
export async function acquireLock(directory: string): Promise<() => void> {
  const marker = join(directory, "server.pid");
  try {
    makeDirectory(directory);
  } catch {
    // Said better, and with what to do about it, by whoever writes there.
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

/** Writes down who runs here, for the words of whoever comes second. */
export function nameHolder(directory: string): void {
  writeFileSync(join(directory, "server.pid"), String(process.pid));
}
