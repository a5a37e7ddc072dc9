import { judgeFuel } from "../../fuel/judge-fuel";
import { type Judgement, notAssessed } from "../../judgement/judgement";
import { judgeOil } from "../../oil/judge-oil";
import { ONLY_ENGINE, READING, readingKey } from "../../readings/reading-keys";
import { fuelInput } from "./fuel-input";
import { enginesOf, type Judge, type JudgedPreflight, ledBy, ofEngine } from "./judge";
import { judgeClock } from "./judge-clock";
import { isPowered } from "./judge-departure";
import { judgeDrains } from "./judge-drains";
import { judgeOilAdded, judgeOilLog } from "./judge-oil-log";
import { judgeNight, judgeSettling } from "./judge-settling";
import { judgeEarlierUplifts, judgeUplifts } from "./judge-uplifts";

const noFuel = (why: string): Judgement => ({
  ...notAssessed("unknown.fuel", "Fuel for this flight", `Not checked: ${why}.`),
  cause: "unknown.fuel",
  action: "Measure the fuel.",
});

function fuel(preflight: JudgedPreflight): Judgement[] {
  const input = fuelInput(preflight.list, preflight.state, preflight.quantity);
  if (!isPowered(preflight.list.type)) return [];
  if (!input) return [noFuel("no tanks and no fuel consumption are on file for this aircraft")];
  if (input.readings.length === 0) return [noFuel("no tank has been measured yet")];
  const itemIds = preflight.itemsOf(["fuel.dip", "fuel.mark", "fuel.sight", "fuel.gauge"]);
  return ledBy(itemIds, "fuel.endurance", "Fuel for this flight", () => {
    const result = judgeFuel(input);
    preflight.given.fuel = result;
    return result.judgements;
  });
}

function oilLevel(preflight: JudgedPreflight): Judgement[] {
  const { list, state } = preflight;
  return enginesOf(preflight).flatMap(({ name, key }) => {
    const levelQt = preflight.value(READING.oilLevel, name);
    if (levelQt === undefined) return [];
    const longFlight = list.conditions.includes("long range") || list.conditions.includes("instrument");
    const heat = state.readings[readingKey(READING.oilLevel, name)]?.heat;
    const made = ledBy(preflight.itemsOf([READING.oilLevel], name), READING.oilLevel, "Oil", () => {
      const judged = judgeOil({ levelQt, profile: list.type.oil, longFlight, ...(heat && { heat }) });
      preflight.given.oil = { ...preflight.given.oil, [key]: judged };
      return judged.judgement;
    });
    return ofEngine(name, made);
  });
}

function oilUse(preflight: JudgedPreflight): Judgement[] {
  const { list, state, given } = preflight;
  const levels = Object.fromEntries(
    Object.entries(given.oil ?? {}).map(([engine, judged]) => [engine, judged.levelQt]),
  );
  const addedQt: Record<string, number> = {};
  for (const { engine = ONLY_ENGINE, qt } of state.oilAdded) addedQt[engine] = (addedQt[engine] ?? 0) + qt;
  return ledBy(preflight.itemsOf([READING.oilLevel]), "oil.use", "Oil consumption", () => [
    ...judgeOilLog(list, levels, preflight.value(READING.hours), addedQt),
    ...judgeOilAdded(list, state),
  ]);
}

/** Fuel and oil judges, independent of each other, so that one bad number does not silence the rest. */
export const FLUID_JUDGES: readonly Judge[] = [
  {
    id: "clock",
    subject: "Device clock",
    topic: "hours",
    needs: [],
    judge: ({ list, state }) => judgeClock(list, state),
  },
  { id: "fuel.endurance", subject: "Fuel for this flight", topic: "fuel", needs: [], judge: fuel },
  {
    id: "fuel.drains",
    subject: "Fuel samples",
    topic: "fuel",
    needs: [],
    judge: ({ list, state }) => judgeDrains(list, state),
  },
  {
    id: "fuel.uplifts",
    subject: "Fuel receipts",
    topic: "fuel",
    needs: [],
    judge: ({ list, state }) => judgeUplifts(list, state),
  },
  {
    id: "fuel.earlier",
    subject: "Earlier refuelling",
    topic: "fuel",
    needs: [],
    judge: ({ list }) => judgeEarlierUplifts(list),
  },
  {
    id: "fuel.settling",
    subject: "Drained after refuelling",
    topic: "fuel",
    needs: [],
    judge: ({ list, state }) => judgeSettling(list, state),
  },
  {
    id: "fuel.night",
    subject: "Overnight condensation",
    topic: "fuel",
    needs: ["fuel.endurance"],
    judge: ({ state, given }) => judgeNight(state, given.fuel),
  },
  { id: "oil.level", subject: "Oil", topic: "oil", needs: [], judge: oilLevel },
  { id: "oil.use", subject: "Oil consumption", topic: "oil", needs: ["oil.level"], judge: oilUse },
];
