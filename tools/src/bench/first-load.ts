import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { WEB_ROOT } from "../paths";
import { atMost, type Figure } from "./figure";

/** An almost empty application with the same libraries, exported the same way, gzipped: measured once, on these versions. */
const FLOOR_BYTES = 319_783;

/** What the page itself asks for before it can be used; the worker and the table's writer come when they are needed. */
export function firstLoad(): Figure[] {
  const page = readFileSync(join(WEB_ROOT, "index.html"), "utf8");
  const scripts = [...page.matchAll(/<script[^>]* src="([^"]+)"/g)].map(([, src]) => src ?? "");
  if (scripts.length === 0) throw new Error("the page names no script");
  const bytes = scripts.reduce(
    (sum, src) => sum + gzipSync(readFileSync(join(WEB_ROOT, src)), { level: 9 }).length,
    0,
  );
  return [atMost("first-load JavaScript, gzipped", bytes, "bytes", FLOOR_BYTES, 1.6)];
}
