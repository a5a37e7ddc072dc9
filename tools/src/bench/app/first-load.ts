import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { WEB_ROOT } from "../../paths";
import { atMost, type Figure, plain } from "../figure";

/** An almost empty application with the same libraries, exported the same way, gzipped: measured once, on these versions. */
const FLOOR_BYTES = 319_783;

/** What the first page asks for before anything shows, and everything that the service worker fetches after it. */
export function firstLoad(): Figure[] {
  const folder = join(WEB_ROOT, "_expo", "static", "js", "web");
  const size = (path: string) => gzipSync(readFileSync(path), { level: 9 }).length;
  const first = [
    ...readFileSync(join(WEB_ROOT, "index.html"), "utf8").matchAll(/<script[^>]+src="([^"]+\.js)"/g),
  ];
  const bytes = first.reduce((sum, [, src = ""]) => sum + size(join(WEB_ROOT, src)), 0);
  const all = readdirSync(folder)
    .filter((name) => name.endsWith(".js"))
    .reduce((sum, name) => sum + size(join(folder, name)), 0);
  return [
    atMost("first-load JavaScript, gzipped", bytes, "bytes", FLOOR_BYTES, 1.6),
    plain("all JavaScript of the build, gzipped", all, "bytes", FLOOR_BYTES),
  ];
}
