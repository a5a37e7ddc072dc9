import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { runTask } from "./fail";
import { ROOT } from "./paths";
import { buildWebIfStale } from "./site/web-build";

let passed = 0;
let failed = 0;
let broken = false;

/** Runs one part; a part that counts its own tests is not counted twice when it fails. */
function run(name: string, command: string, args: string[], counts = false): boolean {
  const from = performance.now();
  console.log(`\n── ${name}`);
  const { status } = spawnSync(command, args, {
    cwd: ROOT,
    stdio: "inherit",
    env: { ...process.env, CI: "true", EXPO_NO_TELEMETRY: "1" },
  });
  console.log(
    `── ${name}: ${status === 0 ? "good" : "failed"}, ${((performance.now() - from) / 1000).toFixed(0)} s`,
  );
  if (status !== 0) broken = true;
  if (status !== 0 && !counts) failed++;
  return status === 0;
}

function read<T>(file: string): T | undefined {
  try {
    return JSON.parse(readFileSync(join(ROOT, ".cravix", file), "utf8")) as T;
  } catch {
    return undefined;
  }
}

/** Everything that must hold, in one command: style, direction of imports, types, units, a real database, a real browser. */
await runTask(async () => {
  mkdirSync(join(ROOT, ".cravix"), { recursive: true });
  run("style and direction of imports", "npm", ["run", "--silent", "lint"]);
  run("types", "npm", ["run", "--silent", "types"]);

  run(
    "core, contract, demo, tools, app and server",
    "npx",
    ["jest", "--json", "--outputFile=.cravix/jest.json", "--forceExit"],
    true,
  );
  const jest = read<{ numPassedTests: number; numFailedTests: number; numFailedTestSuites: number }>(
    "jest.json",
  );
  passed += jest?.numPassedTests ?? 0;
  failed += jest?.numFailedTests ?? 0;

  console.log("\nBuilding the interface where it is stale …");
  await buildWebIfStale();
  run("hostile requests and kills, in short", "node", ["tools/bootstrap.mjs", "attack", "short"]);
  run("every benchmark, run through once", "node", ["tools/bootstrap.mjs", "bench", "tiny"]);
  run(
    "the built interface in Chromium",
    "npx",
    ["playwright", "test", "--config", "e2e/playwright.config.ts"],
    true,
  );
  const e2e = read<{ stats: { expected: number; unexpected: number; flaky: number } }>("e2e.json");
  passed += e2e?.stats.expected ?? 0;
  failed += (e2e?.stats.unexpected ?? 0) + (e2e?.stats.flaky ?? 0);

  // Nothing run is nothing shown.
  if (!jest || !e2e || passed === 0 || (broken && failed === 0)) failed++;
  console.log(`\n${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
});
