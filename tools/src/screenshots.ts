import { spawnSync } from "node:child_process";
import { ROOT } from "./paths";
import { buildWebIfStale } from "./site/web-build";

await buildWebIfStale();
const run = spawnSync("npx", ["playwright", "test", "--config", "e2e/playwright.screenshots.config.ts"], {
  cwd: ROOT,
  stdio: "inherit",
});
process.exit(run.status ?? 1);
