import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { WEB_ROOT } from "../paths";
import { atMost, type Figure } from "./figure";

/** An almost empty application with the same libraries, exported the same way, gzipped: measured once, on these versions. */
const FLOOR_BYTES = 319_783;

export function firstLoad(): Figure[] {
  const folder = join(WEB_ROOT, "_expo", "static", "js", "web");
  const bytes = readdirSync(folder)
    .filter((name) => name.endsWith(".js"))
    .reduce((sum, name) => sum + gzipSync(readFileSync(join(folder, name)), { level: 9 }).length, 0);
  return [atMost("first-load JavaScript, gzipped", bytes, "bytes", FLOOR_BYTES, 1.6)];
}
