import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { runTask } from "./fail";
import { type BrowserReport, failureSummary, type JestReport } from "./failure-summary";
import { ROOT } from "./paths";
import { buildWebIfStale } from "./site/web-build";

let passed = 0;
let failed = 0;
let broken = false;
/** Summaries of failed parts, repeated at the end. */
const failures: string[] = [];
const LAST_LINES = 40;
/** Durations of all parts, printed at the end. */
const times: string[] = [];
/** Larger young generations trade memory for a fifth less time, in Node and in Go (the type checker). Needs about two gigabytes. */
const ROOMY = {
  NODE_OPTIONS: `${process.env.NODE_OPTIONS ?? ""} --max-semi-space-size=64`.trim(),
  GOGC: "400",
};

/**
 * Runs one part and prints its output when it ends, since parts run in parallel. A part that counts its own tests is not counted
 * again when it fails.
 */
async function run(name: string, command: string, args: string[], counts = false): Promise<void> {
  const from = performance.now();
  console.log(`── ${name} …`);
  const child = spawn(command, args, {
    cwd: ROOT,
    stdio: ["ignore", "pipe", "pipe"],
    env: { ...process.env, ...ROOMY, CI: "true", EXPO_NO_TELEMETRY: "1" },
  });
  const said: Buffer[] = [];
  child.stdout.on("data", (data: Buffer) => said.push(data));
  child.stderr.on("data", (data: Buffer) => said.push(data));
  const [status] = await once(child, "close");
  const took = `${((performance.now() - from) / 1000).toFixed(0)} s`;
  times.push(`${name} ${took}`);
  const words = Buffer.concat(said).toString();
  console.log(`\n${words}── ${name}: ${status === 0 ? "passed" : "failed"}, ${took}`);
  if (status !== 0)
    failures.push(`── failed: ${name}\n${words.trimEnd().split("\n").slice(-LAST_LINES).join("\n")}`);
  if (status !== 0) broken = true;
  if (status !== 0 && !counts) failed++;
}

function read<T>(file: string): T | undefined {
  try {
    return JSON.parse(readFileSync(join(ROOT, ".cravix", file), "utf8")) as T;
  } catch {
    return undefined;
  }
}

/** Runs all checks: style, import rules, types, unit and server tests, browser tests. */
await runTask(async () => {
  mkdirSync(join(ROOT, ".cravix"), { recursive: true });
  // Delete earlier reports.
  for (const file of ["jest.json", "e2e.json"]) rmSync(join(ROOT, ".cravix", file), { force: true });
  // Two chains in parallel on two cores; whatever needs the built interface waits for it.
  const built = run("lint and import rules", "npm", ["run", "--silent", "lint"]).then(async () => {
    console.log("Building the interface if it is out of date …");
    await buildWebIfStale();
  });
  const tests = async () => {
    await run("types", "npm", ["run", "--silent", "types"]);
    await run(
      "unit and server tests",
      "npx",
      ["jest", "--json", "--outputFile=.cravix/jest.json", "--forceExit", "--maxWorkers=2"],
      true,
    );
    await built;
    await run(
      "browser tests in Chromium",
      "npx",
      ["playwright", "test", "--config", "e2e/playwright.config.ts"],
      true,
    );
  };
  const trials = async () => {
    await built;
    await run("attack tests, short run", "node", ["tools/bootstrap.mjs", "robustness", "short"]);
    await run("every benchmark, one short run", "node", ["tools/bootstrap.mjs", "bench", "tiny"]);
  };
  await Promise.all([tests(), trials()]);

  const jest = read<JestReport>("jest.json");
  passed += jest?.numPassedTests ?? 0;
  failed += jest?.numFailedTests ?? 0;
  const e2e = read<BrowserReport>("e2e.json");
  passed += e2e?.stats.expected ?? 0;
  failed += (e2e?.stats.unexpected ?? 0) + (e2e?.stats.flaky ?? 0);

  // A run without tests counts as a failure.
  if (!jest || !e2e || passed === 0 || (broken && failed === 0)) failed++;
  failures.push(...failureSummary(jest, e2e));
  for (const failure of failures) console.log(`\n${failure}`);
  console.log(`\n${times.join("; ")}`);
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
