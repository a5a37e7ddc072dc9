import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { excesses, type LimitException, limitFaults } from "./limits";
import { ROOT } from "./paths";

/** Holds the limits of `tools/limits/limits.json`, but for the exceptions beside it, which may only shrink. */
const LOOKED_AT = ["core/src", "contract/src", "server/src", "app", "demo/src", "tools/src", "e2e"];
const { stdout, stderr } = spawnSync(
  join(ROOT, "node_modules", ".bin", "biome"),
  [
    "lint",
    "--config-path=tools/limits/limits.json",
    "--max-diagnostics=none",
    "--reporter=json",
    ...LOOKED_AT,
  ],
  { cwd: ROOT, encoding: "utf8", maxBuffer: 1 << 26 },
);
if (!stdout.startsWith("{")) throw new Error(`The linter did not report: ${stderr}`);
const exceptions = JSON.parse(
  readFileSync(join(ROOT, "tools", "limits", "exceptions.json"), "utf8"),
) as LimitException[];
for (const one of exceptions) if (!one.why) throw new Error(`${one.file} has no reason in exceptions.json.`);
const faults = limitFaults(excesses(JSON.parse(stdout).diagnostics), exceptions);
for (const fault of faults) console.error(fault);
if (faults.length > 0) process.exitCode = 1;
