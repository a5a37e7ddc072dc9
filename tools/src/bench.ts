import { coreFigures } from "./bench/core-figures";
import { eventsPerSecond } from "./bench/events-per-second";
import type { Figure } from "./bench/figure";
import { firstLoad } from "./bench/first-load";
import { fluidFigures } from "./bench/fluid-figures";
import { fluidHistory } from "./bench/fluid-history";
import { fluidPages } from "./bench/fluid-pages";
import { lapSearch } from "./bench/lap-search";
import { oldDevice } from "./bench/old-device";
import { runUpAccuracy, runUpFigures, runUpManners } from "./bench/run-up-figures";
import { runUpPage } from "./bench/run-up-page";
import { TINY } from "./bench/size";
import { tapToPaint } from "./bench/tap-to-paint";
import { worstRequest } from "./bench/worst-request";
import { runTask, SetupError } from "./fail";
import { buildWebIfStale } from "./web-build";

/** What a part measures; one that measures nothing has rotted. */
async function figuresOf(measure: () => Figure[] | Promise<Figure[]>): Promise<Figure[]> {
  const figures = await measure();
  if (figures.length === 0) throw new Error(`${measure.name} measures nothing`);
  return figures;
}

/** One JSON line a figure, each with its baseline measured in the same run. Never a test: machines are shared and noisy. */
await runTask(async () => {
  await buildWebIfStale();
  // Some of them alone: npm run bench -- fluid
  const only = TINY ? "" : (process.argv[3] ?? "");
  const all = [
    firstLoad,
    coreFigures,
    fluidFigures,
    fluidPages,
    fluidHistory,
    lapSearch,
    runUpFigures,
    runUpAccuracy,
    runUpManners,
    runUpPage,
    eventsPerSecond,
    worstRequest,
    oldDevice,
    tapToPaint,
  ];
  const chosen = all.filter(({ name }) => name.toLowerCase().includes(only.toLowerCase()));
  if (chosen.length === 0) throw new SetupError(`there is no benchmark called ${only}`);
  for (const measure of chosen)
    for (const figure of await figuresOf(measure)) {
      // Run through once, a figure means nothing but that there is one.
      if (TINY && !(Number.isFinite(figure.value) && figure.name))
        throw new Error(`no figure: ${figure.name}`);
      console.log(TINY ? `runs: ${figure.name}` : JSON.stringify(figure));
    }
  process.exit(0);
});
