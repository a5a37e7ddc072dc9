import { existsSync, mkdirSync } from "node:fs";
import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
export const WEB_ROOT = join(ROOT, "app", "dist");
/** Directory of the database and its settings, kept between starts. */
export const dataDirectory = (): string => resolve(process.env.CRAVIX_DATA ?? join(ROOT, ".cravix", "data"));

/** Creates a directory and its parents one by one: Node's recursive option hangs if a parent cannot contain directories. */
export function makeDirectory(directory: string): void {
  const missing: string[] = [];
  for (let path = directory; !existsSync(path); path = dirname(path)) missing.unshift(path);
  for (const path of missing) mkdirSync(path);
}
