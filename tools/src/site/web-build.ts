import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { join } from "node:path";
import { SetupError } from "../fail";
import { ROOT, WEB_ROOT } from "../paths";
import { checkBuild } from "./check-build";
import { compressBuild } from "./compress-build";
import { dressPage } from "./dress-page";

const SOURCES = [
  "app",
  "core/src",
  "core/package.json",
  "contract/src",
  "contract/package.json",
  "package-lock.json",
  "tools/src/site/web-build.ts",
  "tools/src/site/check-build.ts",
  "tools/src/site/compress-build.ts",
  "tools/src/site/dress-page.ts",
];
const LEFT_OUT = new Set(["node_modules", "dist", ".expo", "expo-env.d.ts", "nativewind-env.d.ts"]);

/** Generates the service worker, which caches the interface for offline use. */
export async function keepOnDevice(root: string): Promise<void> {
  // Imported on demand, as it takes as long to load as everything else in a start.
  const { generateSW } = await import("workbox-build");
  await generateSW({
    globDirectory: root,
    globPatterns: ["**/*.{html,js,css,woff2,png,svg,webmanifest}"],
    swDest: join(root, "sw.js"),
    inlineWorkboxRuntime: true,
    sourcemap: false,
    clientsClaim: true,
    // A new version waits until the user loads it, or no window is open.
    skipWaiting: false,
    cleanupOutdatedCaches: true,
    navigateFallback: "/index.html",
    navigateFallbackDenylist: [/^\/api\//],
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
    mode: "production",
  });
}

/** Builds the interface if its sources have changed. Returns true if it did. */
export async function buildWebIfStale(): Promise<boolean> {
  const stamp = join(WEB_ROOT, ".sources");
  const now = sourcesHash();
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === now) return false;
  // Built aside and renamed, so that simultaneous starts and page loads never see half of it.
  const fresh = join(ROOT, ".cravix", `build-${process.pid}`);
  mkdirSync(join(ROOT, ".cravix"), { recursive: true });
  try {
    await exportWeb(fresh);
    dressPage(fresh);
    checkBuild(fresh);
    await keepOnDevice(fresh);
    await compressBuild(fresh);
    writeFileSync(join(fresh, ".sources"), now);
    putInPlace(fresh);
  } finally {
    rmSync(fresh, { recursive: true, force: true });
  }
  return true;
}

function putInPlace(fresh: string): void {
  const old = `${fresh}-old`;
  if (existsSync(WEB_ROOT)) renameSync(WEB_ROOT, old);
  try {
    renameSync(fresh, WEB_ROOT);
  } catch (error) {
    // Another start renamed an equal build first.
    if ((error as NodeJS.ErrnoException).code !== "ENOTEMPTY") throw error;
  }
  rmSync(old, { recursive: true, force: true });
}

function sourcesHash(): string {
  const hash = createHash("sha256");
  const add = (path: string) => {
    const name = path.split("/").at(-1) ?? "";
    if (LEFT_OUT.has(name) || /\.test\.tsx?$/.test(name)) return;
    const full = join(ROOT, path);
    try {
      for (const entry of readdirSync(full).sort()) add(`${path}/${entry}`);
    } catch {
      hash.update(path).update(readFileSync(full));
    }
  };
  for (const source of SOURCES) add(source);
  return hash.digest("hex");
}

/** Metro uses half of the cores, one of two. Each worker needs about 200 MB. */
const MAX_WORKERS = 4;

/** Exports the web page of an Expo project into `root`: the interface, or the project in `from`. */
export function exportWeb(root: string, from = join(ROOT, "app")): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      "npx",
      [
        "expo",
        "export",
        "--platform",
        "web",
        "--output-dir",
        root,
        "--source-maps",
        "--max-workers",
        String(Math.min(availableParallelism(), MAX_WORKERS)),
      ],
      {
        cwd: from,
        env: {
          ...process.env,
          CI: "1",
          EXPO_OFFLINE: "1",
          EXPO_NO_TELEMETRY: "1",
          EXPO_NO_DOTENV: "1",
          NODE_ENV: "production",
        },
        stdio: ["ignore", "pipe", "pipe"],
      },
    );
    let output = "";
    child.stdout.on("data", (data) => (output += data));
    child.stderr.on("data", (data) => (output += data));
    child.once("error", reject);
    child.once("close", (code) =>
      code === 0
        ? resolve()
        : reject(new SetupError(`the interface could not be built:\n${output.slice(-4000)}`)),
    );
  });
}
