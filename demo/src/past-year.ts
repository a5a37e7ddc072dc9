import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { seededRandom } from "./seeded-random";

const DAY = 86_400_000;

interface Engine {
  registration: string;
  engine?: string;
  /** Hour meter and level at the newest entry. */
  hours: number;
  levelQt: number;
  perH: number;
  flightH: number;
  /** Days ago of the newest entry, and number of earlier flights. */
  daysAgo: number;
  flights: number;
  /** One container is added before the level falls below this. */
  keptAboveQt: number;
  containerQt: number;
  /** Consumption in the first part of the year, if different. */
  before?: { perH: number; untilFlight: number };
}

/** The trainer's full preflights begin 36 days ago with 7.6 quarts at 4,211.3 hours: the year before them ends there. */
const ENGINES: Engine[] = [
  {
    registration: "QX-TAR",
    hours: 4210.2,
    levelQt: 7.7,
    perH: 0.1,
    flightH: 1.1,
    daysAgo: 38,
    flights: 130,
    keptAboveQt: 6.6,
    containerQt: 1,
  },
  {
    registration: "QX-HLD",
    hours: 3120.4,
    levelQt: 10.2,
    perH: 0.15,
    flightH: 1.9,
    daysAgo: 4,
    flights: 60,
    keptAboveQt: 9.3,
    containerQt: 1,
  },
  {
    registration: "QX-DOV",
    engine: "left",
    hours: 2874.6,
    levelQt: 7.1,
    perH: 0.34,
    flightH: 1.5,
    daysAgo: 6,
    flights: 44,
    keptAboveQt: 6.3,
    containerQt: 1,
    before: { perH: 0.14, untilFlight: 28 },
  },
  {
    registration: "QX-DOV",
    engine: "right",
    hours: 2874.6,
    levelQt: 7.3,
    perH: 0.13,
    flightH: 1.5,
    daysAgo: 6,
    flights: 44,
    keptAboveQt: 6.3,
    containerQt: 1,
  },
  {
    registration: "QX-LUM",
    hours: 612.3,
    levelQt: 3.1,
    perH: 0.02,
    flightH: 1,
    daysAgo: 2,
    flights: 90,
    keptAboveQt: 2.7,
    containerQt: 0.25,
  },
  {
    registration: "QX-COR",
    hours: 1432.7,
    levelQt: 15.8,
    perH: 0.95,
    flightH: 0.8,
    daysAgo: 9,
    flights: 26,
    keptAboveQt: 12.5,
    containerQt: 1,
  },
];

/** Fuel in the tanks when these four were last flown. */
const TANKS: { registration: string; hours: number; daysAgo: number; litres: Record<string, number> }[] = [
  {
    registration: "QX-HLD",
    hours: 3120.4,
    daysAgo: 4,
    litres: { left: 117, right: 114, "left-tip": 41, "right-tip": 41 },
  },
  { registration: "QX-DOV", hours: 2874.6, daysAgo: 6, litres: { left: 112, right: 110 } },
  { registration: "QX-LUM", hours: 612.3, daysAgo: 2, litres: { main: 71 } },
  { registration: "QX-COR", hours: 1432.7, daysAgo: 9, litres: { left: 66, right: 65 } },
];

/** A year of oil entries for every engine of the group, and the last tank contents, as log entries; deterministic per day. */
export function pastYear(now: Date): FluidRow[] {
  return [
    ...ENGINES.flatMap((engine, i) => oilYear(engine, now, 300 + i)),
    ...TANKS.flatMap((tanks) => lastTanks(tanks, now)),
  ];
}

/** Generated backwards from the newest entry, so that it ends at a known value. */
function oilYear(engine: Engine, now: Date, seed: number): FluidRow[] {
  const {
    registration,
    engine: part,
    perH,
    flightH,
    daysAgo,
    flights,
    keptAboveQt,
    containerQt,
    before,
  } = engine;
  const random = seededRandom(seed);
  const rows: FluidRow[] = [];
  let { hours, levelQt } = engine;
  let at = now.getTime() - daysAgo * DAY;
  const between = ((365 - daysAgo) * DAY) / flights;
  const line = (entry: "level" | "added", amount: number, time: number): FluidRow => ({
    registration,
    fluid: "oil",
    entry,
    ...(part && { part }),
    amount: Number(amount.toFixed(2)),
    unit: "US qt",
    hours: Number(hours.toFixed(1)),
    at: new Date(Math.round(time)).toISOString(),
  });
  for (let flight = flights; flight > 0; flight--) {
    const read = Math.round((levelQt + (random.next() - 0.5) * 0.2) * 10) / 10;
    rows.push(line("level", read, at));
    const flown = Math.round(flightH * (0.6 + 0.8 * random.next()) * 10) / 10;
    // Oil added between the previous flight and this reading: before it the level was lower.
    if (levelQt > keptAboveQt + containerQt) {
      rows.push(line("added", containerQt, at - 600_000));
      levelQt -= containerQt;
    }
    hours -= flown;
    levelQt += flown * (before && flight <= before.untilFlight ? before.perH : perH);
    at -= between * (0.6 + 0.8 * random.next());
  }
  return rows.reverse();
}

function lastTanks({ registration, hours, daysAgo, litres }: (typeof TANKS)[number], now: Date): FluidRow[] {
  return Object.entries(litres).map(([part, amount], i) => ({
    registration,
    fluid: "fuel",
    entry: "measured",
    part,
    amount,
    unit: "L",
    hours,
    at: new Date(now.getTime() - daysAgo * DAY + i * 60_000).toISOString(),
  }));
}
