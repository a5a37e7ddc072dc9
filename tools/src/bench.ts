import { coreFigures } from "./bench/core-figures";
import { eventsPerSecond } from "./bench/events-per-second";
import { firstLoad } from "./bench/first-load";
import { lapSearch } from "./bench/lap-search";
import { tapToPaint } from "./bench/tap-to-paint";
import { runTask } from "./fail";
import { buildWebIfStale } from "./web-build";

/** One JSON line a figure, each with its baseline measured in the same run. Never a test: machines are shared and noisy. */
await runTask(async () => {
  await buildWebIfStale();
  for (const measure of [firstLoad, coreFigures, lapSearch, eventsPerSecond, tapToPaint])
    for (const figure of await measure()) console.log(JSON.stringify(figure));
  process.exit(0);
});
