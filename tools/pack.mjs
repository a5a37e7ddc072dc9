// @ts-check
// Bundles the server's sources when they change, so that a start takes one second instead of three.
import { createHash } from "node:crypto";
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
} from "node:fs";
import { join, sep } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { build } from "esbuild";

const PARTS = ["core", "contract", "server", "demo", "tools"];
/** How long old bundles stay for running servers, ms. */
const KEPT_MS = 7 * 24 * 3_600_000;

/** @param {string} directory @returns {string[]} */
function filesIn(directory) {
  return readdirSync(directory, { withFileTypes: true })
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => {
      const path = join(directory, entry.name);
      if (entry.isDirectory()) return entry.name === "node_modules" ? [] : filesIn(path);
      return /(?<!\.test)\.(ts|mjs|json)$/.test(entry.name) ? [path] : [];
    });
}

/** @param {string} root */
function sourcesHash(root) {
  const hash = createHash("sha256");
  for (const path of [
    ...PARTS.flatMap((part) => filesIn(join(root, part))),
    join(root, "package-lock.json"),
    fileURLToPath(import.meta.url),
  ])
    if (existsSync(path)) hash.update(path.slice(root.length)).update(readFileSync(path));
  return hash.digest("hex").slice(0, 16);
}

/**
 * Keeps packages external and each file's own import.meta.url, except for the module that starts workers: they are bundled beside
 * it.
 * @param {string} root
 * @returns {import("esbuild").Plugin}
 */
const ownFiles = (root) => ({
  name: "own files",
  setup(own) {
    own.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === "entry-point" || path.startsWith("@cravix/") ? undefined : { path, external: true },
    );
    own.onLoad({ filter: /\.ts$/ }, ({ path }) => {
      const text = readFileSync(path, "utf8");
      const stays = path.startsWith(join(root, "server", "src", "worker-pool") + sep);
      return {
        loader: "ts",
        contents: stays ? text : text.replaceAll("import.meta.url", JSON.stringify(pathToFileURL(path).href)),
      };
    });
  },
});

/**
 * Path of the bundled start of `root`, bundled now if missing. Throws with the bundler's message for an unreadable source.
 * @param {string} root
 * @returns {Promise<string>}
 */
export async function pack(root) {
  const all = join(root, ".cravix", "run");
  const place = join(all, sourcesHash(root));
  const start = join(place, "start.mjs");
  if (existsSync(start)) {
    const now = new Date();
    utimesSync(place, now, now);
    return start;
  }
  mkdirSync(all, { recursive: true });
  // Bundled aside and renamed, so that simultaneous starts never see half of it.
  const fresh = join(all, `new-${process.pid}`);
  try {
    await build({
      entryPoints: {
        start: join(root, "tools", "src", "start.ts"),
        worker: join(root, "server", "src", "worker-pool", "jobs.ts"),
      },
      absWorkingDir: root,
      bundle: true,
      splitting: true,
      platform: "node",
      format: "esm",
      target: "node20",
      outdir: fresh,
      outExtension: { ".js": ".mjs" },
      plugins: [ownFiles(root)],
      logLevel: "silent",
    });
    if (!existsSync(place)) renameSync(fresh, place);
  } catch (error) {
    // Another start renamed an equal bundle first.
    if (!existsSync(start)) throw error;
  } finally {
    rmSync(fresh, { recursive: true, force: true });
  }
  for (const name of readdirSync(all)) {
    const path = join(all, name);
    if (
      path !== place &&
      Date.now() - (statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? Infinity) > KEPT_MS
    )
      rmSync(path, { recursive: true, force: true });
  }
  return start;
}
