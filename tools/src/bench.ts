import { eventsPerSecond } from "./bench/events-per-second";
import { firstLoad } from "./bench/first-load";
import { tapToPaint } from "./bench/tap-to-paint";
import { runTask } from "./fail";
import { buildWebIfStale } from "./web-build";

/** One JSON line a figure, each with its baseline measured in the same run. Never a test: machines are shared and noisy. */
await runTask(async () => {
  await buildWebIfStale();
  for (const measure of [firstLoad, eventsPerSecond, tapToPaint])
    for (const figure of await measure()) console.log(JSON.stringify(figure));
  process.exit(0);
});
