// @ts-check
// Prepares a fresh machine before the project's own code can run. Imports only Node modules.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";

const root = dirname(dirname(fileURLToPath(import.meta.url)));
process.chdir(root);
const task = process.argv[2] ?? "start";
const tasks = [
  "start",
  "test",
  "bench",
  "screenshots",
  "schemas",
  "icons",
  "robustness",
  "check-projections",
  "list-differences",
];

/** @param {string} line */
function fail(line) {
  console.error(`cravix: ${line}`);
  process.exit(1);
}

if (!tasks.includes(task)) fail(`unknown task ${task}. Choose one of ${tasks.join(", ")}.`);
const [major = 0, minor = 0] = process.versions.node.split(".").map(Number);
if (major < 20 || (major === 20 && minor < 19))
  fail(`Node ${process.versions.node} is too old. Install Node 20.19 or newer.`);

/** @param {string} program */
function has(program) {
  return [
    "/usr/sbin",
    "/usr/bin",
    "/usr/local/sbin",
    "/usr/local/bin",
    ...(process.env.PATH ?? "").split(":"),
  ].some((dir) => existsSync(join(dir, program)));
}

/**
 * Runs a program. Resolves to its output on failure, to undefined on success.
 * @param {string} program @param {string[]} args @param {NodeJS.ProcessEnv} env
 * @returns {Promise<string | undefined>}
 */
function failureOf(program, args, env = process.env) {
  return new Promise((resolve) => {
    const child = spawn(program, args, { stdio: ["ignore", "pipe", "pipe"], env });
    let said = "";
    let wrong = "";
    child.stdout.on("data", (data) => (said = `${said}${data}`.slice(-4000)));
    child.stderr.on("data", (data) => (wrong = `${wrong}${data}`.slice(0, 4000)));
    child.once("error", (error) => resolve(error.message));
    child.once("close", (code) => resolve(code === 0 ? undefined : wrong || said || `exit code ${code}`));
  });
}

/** Why an installation failed, as the final message. */
class NotInstalled extends Error {}

/** @param {[program: string, debianPackage: string][]} wanted */
async function installFromDebian(wanted) {
  const missing = wanted.filter(([program]) => !has(program)).map(([, name]) => name);
  if (missing.length === 0) return;
  const byHand = `sudo apt-get update && sudo apt-get install -y ${missing.join(" ")}`;
  if (!has("apt-get"))
    throw new NotInstalled(
      `missing: ${missing.join(" and ")}. This is not Debian, so install it yourself, then start again.`,
    );
  const isRoot = process.getuid?.() === 0;
  if (!isRoot && (!has("sudo") || spawnSync("sudo", ["-n", "true"]).status !== 0))
    throw new NotInstalled(
      `missing: ${missing.join(" and ")}. You do not have the right to install packages. Run as an administrator: ${byHand}`,
    );
  console.log(`Installing ${missing.join(", ")} (Debian packages) …`);
  const sudo = isRoot ? [] : ["sudo", "-n"];
  for (const args of [["update"], ["install", "-y", "--no-install-recommends", ...missing]]) {
    const [command = "apt-get", ...rest] = [
      ...sudo,
      "env",
      "DEBIAN_FRONTEND=noninteractive",
      "apt-get",
      ...args,
    ];
    const failure = await failureOf(command, rest);
    if (failure)
      throw new NotInstalled(
        `Debian packages could not be installed (${failure.trim().split("\n").at(-1)}). Try it yourself: ${byHand}`,
      );
  }
}

async function installFromNpm() {
  const stamp = join(root, "node_modules", ".cravix-lock");
  const lock = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .digest("hex");
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === lock) return;
  console.log("Installing npm packages (one or two minutes) …");
  const failure = await failureOf("npm", ["ci", "--no-audit", "--no-fund", "--loglevel=error"], {
    ...process.env,
    NODE_ENV: "development",
  });
  if (failure)
    throw new NotInstalled(
      failure.includes("ENOSPC")
        ? "the disk is full. Free about 2 GB and start again."
        : `npm packages could not be installed (${failure.trim().split("\n")[0]}). Check the network and start again.`,
    );
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, lock);
}

/** @type {[string, string][]} */
const browser = ["start", "robustness", "check-projections", "list-differences"].includes(task)
  ? []
  : [["chromium", "chromium"]];
// The headless shell needs a fifth less CPU time in tests.
if (task === "test") browser.push(["chromium-headless-shell", "chromium-headless-shell"]);
// In parallel: one waits for the network while the other unpacks. A failure of one does not abort the other.
const installed = await Promise.allSettled([
  installFromDebian([["mariadbd", "mariadb-server"], ...browser]),
  installFromNpm(),
]);
for (const one of installed)
  if (one.status === "rejected") {
    if (!(one.reason instanceof NotInstalled)) throw one.reason;
    fail(one.reason.message);
  }

if (task === "start") {
  const { pack } = await import("./pack.mjs");
  await import(pathToFileURL(await pack(root)).href);
} else {
  const { register } = await import("tsx/esm/api");
  register();
  await import(pathToFileURL(join(root, "tools", "src", `${task}.ts`)).href);
}
