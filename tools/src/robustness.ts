import { runTask, SetupError } from "./fail";
import { fuzz } from "./robustness/fuzz";
import { killAgainAndAgain } from "./robustness/kill";
import { poison } from "./robustness/poison";
import { buildWebIfStale } from "./site/web-build";

/**
 * npm run attack: hostile requests, valid but strange records, and kills against the real server, on loopback. `short` is used by
 * npm test; by hand: `npm run attack -- fuzz 20000 [seed]`, `npm run attack -- poison 20000 [seed]`, `npm run attack -- kill 50`.
 */
await runTask(async () => {
  const [what = "short", count, seed = "1"] = process.argv.slice(3);
  const asked = count === undefined ? undefined : Number(count);
  if (!["short", "fuzz", "poison", "kill"].includes(what) || Number.isNaN(asked))
    throw new SetupError(
      "usage: npm run attack -- short | fuzz <requests> [seed] | poison <events> [seed] | kill <times> [seed]",
    );
  await buildWebIfStale();
  let good = true;
  if (what === "short" || what === "fuzz") {
    const outcome = await fuzz(asked ?? 300, Number(seed));
    const { troubles, goodLost, ...figures } = outcome;
    console.log(JSON.stringify(figures));
    for (const line of [...troubles, ...goodLost].slice(0, 30)) console.log(`  ${line}`);
    console.log(
      `${troubles.length} requests answered with 5xx or not at all; ${goodLost.length} of ${outcome.goodSent} valid events lost`,
    );
    good &&= troubles.length === 0 && goodLost.length === 0 && outcome.goodSent > 0;
  }
  if (what === "short" || what === "poison") {
    const { troubles, ...figures } = await poison(asked ?? 100, Number(seed));
    console.log(JSON.stringify(figures));
    for (const line of troubles.slice(0, 30)) console.log(`  ${line}`);
    console.log(
      `${troubles.length} reads failed after ${figures.taken} strange events and files were accepted`,
    );
    good &&= troubles.length === 0 && figures.taken > 0;
  }
  if (what === "short" || what === "kill") {
    const outcome = await killAgainAndAgain(asked ?? 2, Number(seed));
    const { lost, differences, ...figures } = outcome;
    console.log(JSON.stringify(figures));
    for (const line of lost.slice(0, 30)) console.log(`  ${line}`);
    for (const difference of differences.slice(0, 10))
      console.log(`  ${JSON.stringify(difference).slice(0, 600)}`);
    console.log(
      `${lost.length} acknowledged events lost; ${differences.length} rows differ from a fresh replay of the events`,
    );
    good &&= lost.length === 0 && differences.length === 0 && outcome.acknowledged > 0;
  }
  process.exit(good ? 0 : 1);
});
