import { existsSync, mkdirSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
export const WEB_ROOT = join(ROOT, "app", "dist");
/** Where the database and its settings live; kept between starts. */
export const dataDirectory = (): string => resolve(process.env.CRAVIX_DATA ?? join(ROOT, ".cravix", "data"));

/** Makes a directory with all above it, one by one: Node's own recursive way never returns where a parent takes no directories at all. */
export function makeDirectory(directory: string): void {
  const missing: string[] = [];
  for (let path = directory; !existsSync(path); path = dirname(path)) missing.unshift(path);
  for (const path of missing) mkdirSync(path);
}
