import { closeSharedSite } from "./bench/app/demo-site";
import { firstLoad } from "./bench/app/first-load";
import { fluidPages } from "./bench/app/fluid-pages";
import { oldDevice } from "./bench/app/old-device";
import { opening } from "./bench/app/opening";
import { runUpPage } from "./bench/app/run-up-page";
import { tapToPaint } from "./bench/app/tap-to-paint";
import { airworthinessFigures } from "./bench/core/airworthiness-figures";
import { coreFigures } from "./bench/core/core-figures";
import { departureFigures } from "./bench/core/departure-figures";
import { fluidFigures } from "./bench/core/fluid-figures";
import { loadingFigures } from "./bench/core/loading-figures";
import { routeSearch } from "./bench/core/route-search";
import {
  runUpAccuracy,
  runUpFigures,
  runUpManners,
  runUpUnfittedCases,
  runUpUnseenCases,
} from "./bench/core/run-up-figures";
import { taps } from "./bench/core/taps";
import type { Figure } from "./bench/figure";
import { eventsPerSecond } from "./bench/server/events-per-second";
import { flightHistory } from "./bench/server/flight-history";
import { fluidHistory } from "./bench/server/fluid-history";
import { worstRequest } from "./bench/server/worst-request";
import { TINY } from "./bench/size";
import { runTask, SetupError } from "./fail";
import { buildWebIfStale } from "./site/web-build";

/** Runs a part; a part without figures is broken. */
async function figuresOf(measure: () => Figure[] | Promise<Figure[]>): Promise<Figure[]> {
  const figures = await measure();
  if (figures.length === 0) throw new Error(`benchmark ${measure.name} returned no figures`);
  return figures;
}

/**
 * Prints one JSON line per figure, with its baseline measured in the same run. Never a test, because machines are shared and
 * noisy.
 */
await runTask(async () => {
  await buildWebIfStale();
  // A selection: npm run bench -- fluid
  const only = TINY ? "" : (process.argv[3] ?? "");
  const all = [
    firstLoad,
    opening,
    coreFigures,
    taps,
    fluidFigures,
    fluidHistory,
    airworthinessFigures,
    loadingFigures,
    departureFigures,
    flightHistory,
    runUpFigures,
    runUpAccuracy,
    runUpManners,
    runUpUnseenCases,
    runUpUnfittedCases,
    runUpPage,
    eventsPerSecond,
    worstRequest,
    oldDevice,
    tapToPaint,
    // These use another aircraft, since a shared site opens with the most recently used one.
    fluidPages,
    routeSearch,
  ];
  const chosen = all.filter(({ name }) => name.toLowerCase().includes(only.toLowerCase()));
  if (chosen.length === 0) throw new SetupError(`no benchmark matches "${only}"`);
  for (const measure of chosen) {
    const from = performance.now();
    for (const figure of await figuresOf(measure)) {
      // In a trial run only the existence of figures counts.
      if (TINY && !(Number.isFinite(figure.value) && figure.name))
        throw new Error(`no value for: ${figure.name}`);
      console.log(TINY ? `ok: ${figure.name}` : JSON.stringify(figure));
    }
    if (TINY) console.log(`${measure.name}: ${((performance.now() - from) / 1000).toFixed(0)} s`);
  }
  await closeSharedSite();
  process.exit(0);
});
