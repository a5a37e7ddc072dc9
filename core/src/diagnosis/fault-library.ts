import type { FindingGrade } from "../judgement/judgement";
import type { DiagnosisContext, Feature } from "./evidence/observations";

/** Probability of each state of a feature, with the reason. States left out share the rest. */
export interface Likelihood {
  states: Record<string, number>;
  why: string;
}

/** Location of a fault: it is considered at each such place. */
export type FaultPlace = "engine" | "side" | "cylinder" | "plug";

/** An engine fault as data: how often it occurs, what it shows, what to do. */
export interface Fault {
  id: string;
  place: FaultPlace;
  /** May contain {side}, {other} and {cylinder}. */
  name: string;
  what: string;
  /** Relative frequency among run-ups, all locations together; own estimates (common practice), not statistics. */
  rate: number;
  grade: FindingGrade;
  action: string;
  caution?: string;
  /** Restricts the fault to such engines. */
  only?: (context: DiagnosisContext) => boolean;
  /**
   * Deviations from a healthy engine. "this" is the faulty side or cylinder, "other" the other side; no suffix for the whole
   * engine.
   */
  shows: Partial<Record<Feature | `${Feature}.this` | `${Feature}.other`, Likelihood>>;
}

/**
 * Likelihoods of a healthy engine. An out-of-range value usually means a fault; on a healthy engine it is a misreading, once in
 * several hundred or thousand run-ups.
 */
export const HEALTHY: Record<Feature, Likelihood> = {
  drop: {
    states: { usual: 0.9928, none: 0.001, uneven: 0.0015, over: 0.0045, quit: 0.0002 },
    why: "a serviceable magneto drops a little, inside the limit, and about as much as the other",
  },
  shown: {
    states: { seen: 0.949, "not seen": 0.001, "one long": 0.05 },
    why: "both sides are tried, and both drop; straight after each other and alike they are one stretch",
  },
  feel: { states: { smooth: 0.985, rough: 0.015 }, why: "one plug a cylinder still runs smoothly" },
  exhaust: {
    states: {
      hotter: 0.9962,
      "no change": 0.002,
      "one colder": 0.0003,
      "much hotter": 0.001,
      colder: 0.0005,
    },
    why: "one flame burns longer into the exhaust: all cylinders rise alike",
  },
  heat: {
    states: { drop: 0.996, nothing: 0.001, "more while on": 0.001, "more after": 0.002 },
    why: "hot air is thin: the rpm falls and comes back",
  },
  volts: { states: { "in range": 0.997, low: 0.002, high: 0.001 }, why: "the regulator holds the bus" },
  ammeter: { states: { charging: 0.99, discharging: 0.01 }, why: "the start is put back into the battery" },
  suction: { states: { "in range": 0.998, low: 0.001, high: 0.001 }, why: "the pump's regulator holds it" },
  oilPressure: { states: { "in range": 0.9965, low: 0.0005, high: 0.003 }, why: "the relief valve holds it" },
  propeller: {
    states: { answers: 0.9965, slow: 0.003, nothing: 0.0005 },
    why: "warm oil moves the blades at once",
  },
  idle: {
    states: { "in range": 0.983, low: 0.0015, quits: 0.0005, high: 0.015 },
    why: "the stop is set for it",
  },
  idleExhaust: {
    states: { alike: 0.9904, "a little apart": 0.008, "one apart": 0.0015, "far apart": 0.0001 },
    why: "every cylinder gets the same mixture",
  },
  probe: { states: { quiet: 0.9985, wild: 0.0015 }, why: "a probe moves no faster than its metal" },
  turned: { states: { confirmed: 0.8, "not sure": 0.2 }, why: "asked, most are sure of the key" },
  cleared: { states: { gone: 0.5, same: 0.5 }, why: "nothing to clear" },
  leaned: { states: { gone: 0.5, same: 0.5 }, why: "nothing to lean away" },
  again: { states: { "drops now": 0.5, "still none": 0.5 }, why: "nothing to repeat" },
  grounded: {
    states: { falters: 0.985, "runs on": 0.015 },
    why: "with the key off every serviceable magneto is grounded",
  },
  longHeat: { states: { "more after": 0.02, "no change": 0.98 }, why: "no ice to melt" },
  reset: { states: { back: 0.5, same: 0.5 }, why: "nothing to reset" },
  crossCheck: { states: { agrees: 0.9, disagrees: 0.1 }, why: "two instruments of one thing agree" },
  cycled: { states: { "quick now": 0.5, same: 0.5 }, why: "nothing to warm" },
  morePower: { states: { "alike now": 0.5, same: 0.5 }, why: "nothing to compare" },
};

/**
 * Likelihoods of a healthy engine in an unprompted, coarse trace, where many anomalies come from the reading: a side that was
 * checked but missed, a propeller slowed by sampling, taxi rpm taken for idle. Own estimates; the benchmark shows how they
 * perform on generated unseen cases.
 */
export const HEALTHY_COARSE: Partial<Record<Feature, Likelihood>> = {
  shown: {
    states: { seen: 0.885, "not seen": 0.025, "one long": 0.09 },
    why: "both sides are tried, and both drop; but a coarse trace is read wrongly now and then",
  },
  feel: { states: { smooth: 0.95, rough: 0.05 }, why: "few lines a side say little of how it ran" },
  exhaust: {
    states: { hotter: 0.977, "no change": 0.012, "one colder": 0.002, "much hotter": 0.006, colder: 0.003 },
    why: "slow probes have not arrived when a side is left after seconds",
  },
  heat: {
    states: { drop: 0.977, nothing: 0.005, "more while on": 0.006, "more after": 0.012 },
    why: "a return that was not seen leaves another base",
  },
  propeller: {
    states: { answers: 0.9695, slow: 0.03, nothing: 0.0005 },
    why: "pulled and pushed at once, its lowest lies between two lines",
  },
  idle: {
    states: { "in range": 0.9512, low: 0.008, quits: 0.0008, high: 0.04 },
    why: "an idle while rolling, or a taxi rpm that was taken for one",
  },
  idleExhaust: {
    states: { alike: 0.905, "a little apart": 0.06, "one apart": 0.034, "far apart": 0.001 },
    why: "cylinders differ at idle as they do at power, each in its own way: one in thirty traces has one that stands out",
  },
};

const HANDS_OFF =
  "Treat the propeller as live even with the key off. Keep everyone clear and put the chocks in.";
const WATCH = "Hold the brakes, look outside, monitor CHT and oil. The handbook comes first.";
const oneDead: Fault["shows"] = {
  "drop.this": {
    states: { usual: 0.23, uneven: 0.22, over: 0.53, none: 0.01, quit: 0.01 },
    why: "a cylinder that hardly fires pulls a quarter or a sixth of the power away",
  },
  "feel.this": { states: { rough: 0.6, smooth: 0.4 }, why: "one cylinder misses" },
  "exhaust.this": {
    states: { "one colder": 0.955, hotter: 0.03, "no change": 0.005, "much hotter": 0.005, colder: 0.005 },
    why: "on this side its charge goes out unburnt: that cylinder's exhaust falls",
  },
  "exhaust.other": {
    states: { hotter: 0.93, "much hotter": 0.05, "no change": 0.01, "one colder": 0.005, colder: 0.005 },
    why: "the other plug is serviceable",
  },
  idle: { states: { "in range": 0.92, low: 0.05, quits: 0.01, high: 0.02 }, why: "on both it hardly shows" },
};

/**
 * The fault library. Every likelihood is our own estimate from reasoning and common practice, independent of the engine model
 * that the benchmark uses; each gives its reason. The engine's handbook and a mechanic come first.
 */
export const FAULTS: readonly Fault[] = [
  {
    id: "fouled plug",
    place: "plug",
    name: "fouled plug, cylinder {cylinder}, {side} magneto",
    what: "lead or carbon deposits bridge the gap, so this plug does not fire",
    rate: 0.05,
    grade: "ask",
    action:
      "Clear the plug: lean, slightly more rpm, about a minute, then check again. If not cleared after two tries, taxi back.",
    caution: WATCH,
    shows: {
      ...oneDead,
      cleared: { states: { gone: 0.9, same: 0.1 }, why: "a hot minute burns the deposit away, mostly" },
      leaned: { states: { gone: 0.15, same: 0.85 }, why: "a leaner mixture alone cleans slowly" },
    },
  },
  {
    id: "dead plug",
    place: "plug",
    name: "dead plug or lead, cylinder {cylinder}, {side} magneto",
    what: "the plug has failed or its lead is disconnected",
    rate: 0.008,
    grade: "stop",
    action: "Taxi back. Have a mechanic check this plug and its lead.",
    shows: {
      ...oneDead,
      "drop.this": {
        states: { usual: 0.2, uneven: 0.22, over: 0.56, none: 0.01, quit: 0.01 },
        why: "no spark at all: the whole cylinder is missing",
      },
      cleared: { states: { gone: 0.03, same: 0.97 }, why: "no heat mends a lead" },
      leaned: { states: { gone: 0.02, same: 0.98 }, why: "no mixture mends a lead" },
    },
  },
  {
    id: "dead magneto",
    place: "side",
    name: "dead {side} magneto",
    what: "it gives no spark: the engine runs on the other magneto only",
    rate: 0.004,
    grade: "stop",
    action: "Throttle to idle before switching back to both. Do not fly: taxi back.",
    caution: HANDS_OFF,
    shows: {
      "drop.this": {
        states: { quit: 0.97, over: 0.02, usual: 0.005, none: 0.005 },
        why: "alone it cannot keep the engine running",
      },
      "drop.other": {
        states: { none: 0.83, usual: 0.15, over: 0.02 },
        why: "it always ran on that one alone: nothing changes; but one that is dying may still help on both",
      },
      "shown.other": {
        states: { seen: 0.04, "not seen": 0.73, "one long": 0.23 },
        why: "what does not change does not show",
      },
      "feel.this": { states: { rough: 0.5, smooth: 0.5 }, why: "it stops before anybody feels it" },
      "exhaust.this": {
        states: { colder: 0.9, "one colder": 0.04, hotter: 0.03, "no change": 0.03 },
        why: "nothing burns",
      },
      "exhaust.other": {
        states: { "no change": 0.93, hotter: 0.05, "one colder": 0.02 },
        why: "nothing changes",
      },
      "again.other": {
        states: { "drops now": 0.03, "still none": 0.97 },
        why: "the key makes no difference to what is dead",
      },
      "turned.other": { states: { confirmed: 0.95, "not sure": 0.05 }, why: "the key was turned" },
    },
  },
  {
    id: "hot magneto",
    place: "side",
    name: "{side} magneto not grounded by the switch",
    what: "it keeps firing with the key on the other side and with the key off",
    rate: 0.006,
    grade: "stop",
    action: "Do not fly. Shut down with the mixture, keep everyone clear of the propeller, call maintenance.",
    caution: HANDS_OFF,
    shows: {
      "drop.other": {
        states: { none: 0.96, usual: 0.03, over: 0.01 },
        why: "on the other side this one still fires too: no drop",
      },
      "exhaust.other": {
        states: { "no change": 0.95, hotter: 0.04, "one colder": 0.01 },
        why: "both plugs still burn",
      },
      "shown.other": {
        states: { seen: 0.04, "not seen": 0.73, "one long": 0.23 },
        why: "without a drop it looks as if nobody had tried it",
      },
      "drop.this": {
        states: { usual: 0.96, over: 0.03, none: 0.01 },
        why: "the other one is grounded as it should be",
      },
      "again.other": { states: { "drops now": 0.02, "still none": 0.98 }, why: "the wire is still off" },
      grounded: { states: { "runs on": 0.95, falters: 0.05 }, why: "key off does not stop its spark" },
      "turned.other": { states: { confirmed: 0.95, "not sure": 0.05 }, why: "the key was turned" },
    },
  },
  {
    id: "key not turned",
    place: "side",
    name: "{side} not checked, or the key was not turned far enough",
    what: "no rpm change because the magneto was not switched",
    rate: 0.006,
    grade: "ask",
    action: "Repeat the check: look at the key and count the clicks.",
    caution: "Until you see a drop, treat this magneto as not grounded.",
    shows: {
      "drop.this": { states: { none: 0.97, usual: 0.03 }, why: "still on both" },
      "exhaust.this": { states: { "no change": 0.96, hotter: 0.04 }, why: "both plugs still burn" },
      "shown.this": {
        states: { seen: 0.04, "not seen": 0.73, "one long": 0.23 },
        why: "nothing was switched",
      },
      "again.this": {
        states: { "drops now": 0.96, "still none": 0.04 },
        why: "the second time the key is looked at",
      },
      "turned.this": {
        states: { confirmed: 0.06, "not sure": 0.94 },
        why: "asked, one finds that it was not",
      },
    },
  },
  {
    id: "timing off",
    place: "side",
    name: "{side} magneto timing late",
    what: "its timing has slipped",
    rate: 0.008,
    grade: "ask",
    action: "Over the limit: taxi back. Within the limit: have the timing checked.",
    shows: {
      "drop.this": {
        states: { over: 0.5, usual: 0.29, uneven: 0.2, none: 0.005, quit: 0.005 },
        why: "a late spark gives less, on all cylinders alike",
      },
      "feel.this": {
        states: { smooth: 0.95, rough: 0.05 },
        why: "every cylinder still fires: big and smooth",
      },
      "exhaust.this": {
        states: { "much hotter": 0.8, hotter: 0.19, "one colder": 0.003, "no change": 0.005, colder: 0.002 },
        why: "a late flame still burns in the exhaust; a slow probe shows a part of it",
      },
      cleared: { states: { gone: 0.03, same: 0.97 }, why: "heat does not move a magneto" },
      leaned: { states: { gone: 0.04, same: 0.96 }, why: "nor does the mixture" },
    },
  },
  {
    id: "rich at altitude",
    place: "engine",
    name: "mixture too rich for this altitude",
    what: "full rich in thin air: both magneto drops are larger than normal",
    rate: 0.01,
    grade: "ask",
    action: "Lean for best power, then repeat the magneto check.",
    caution: WATCH,
    shows: {
      drop: {
        states: { over: 0.72, usual: 0.27, none: 0.005, quit: 0.005 },
        why: "a rich charge burns slowly on one plug, on either side",
      },
      feel: { states: { rough: 0.25, smooth: 0.75 }, why: "it may stumble, rich" },
      exhaust: {
        states: { hotter: 0.95, "much hotter": 0.02, "no change": 0.02, "one colder": 0.005, colder: 0.005 },
        why: "all cylinders alike",
      },
      leaned: { states: { gone: 0.93, same: 0.07 }, why: "leaning is the remedy" },
      cleared: { states: { gone: 0.5, same: 0.5 }, why: "clearing leans too" },
      heat: {
        states: { drop: 0.97, nothing: 0.01, "more while on": 0.01, "more after": 0.01 },
        why: "heat makes it richer still",
      },
      idle: { states: { "in range": 0.75, low: 0.2, quits: 0.03, high: 0.02 }, why: "rich at idle too" },
    },
  },
  {
    id: "carburettor ice",
    place: "engine",
    name: "carburettor ice",
    what: "ice in the carburettor throat; heat melts it",
    rate: 0.02,
    grade: "note",
    action:
      "Apply carburettor heat until the rpm has risen and is steady. Use it again just before take-off.",
    only: ({ fuelSystem }) => fuelSystem === "carburettor",
    shows: {
      heat: {
        states: { "more after": 0.9, drop: 0.05, "more while on": 0.04, nothing: 0.01 },
        why: "a drop, then more than before: the ice is gone",
      },
      longHeat: { states: { "more after": 0.93, "no change": 0.07 }, why: "it melts in half a minute" },
      idle: {
        states: { "in range": 0.74, low: 0.2, quits: 0.03, high: 0.03 },
        why: "the throat is narrow at idle too",
      },
    },
  },
  {
    id: "heat cable off",
    place: "engine",
    name: "carburettor heat not working",
    what: "the cable is disconnected or slipping, or the heat was already on",
    rate: 0.005,
    grade: "ask",
    action:
      "Heat off, wait, then on again and watch the rpm. Still no change: ask a mechanic before you fly.",
    caution: "Without carburettor heat you cannot clear carburettor ice.",
    only: ({ fuelSystem }) => fuelSystem === "carburettor",
    shows: {
      heat: {
        states: { nothing: 0.96, drop: 0.02, "more while on": 0.01, "more after": 0.01 },
        why: "the flap does not move",
      },
      longHeat: { states: { "more after": 0.02, "no change": 0.98 }, why: "no hot air" },
    },
  },
  {
    id: "blocked intake",
    place: "engine",
    name: "blocked air filter or intake",
    what: "the engine gets more air when the filter is bypassed",
    rate: 0.004,
    grade: "stop",
    action: "Shut down and check the air filter and intake.",
    shows: {
      heat: {
        states: { "more while on": 0.8, nothing: 0.13, drop: 0.06, "more after": 0.01 },
        why: "heat and alternate air go round the filter",
      },
      longHeat: {
        states: { "more after": 0.04, "no change": 0.96 },
        why: "back on the filter it is as before",
      },
      drop: { states: { usual: 0.82, over: 0.16, none: 0.01, quit: 0.01 }, why: "richer for want of air" },
    },
  },
  {
    id: "alternator off line",
    place: "engine",
    name: "alternator off line",
    what: "the battery alone supplies the electrical loads",
    rate: 0.008,
    grade: "stop",
    action: "Switch the alternator off and on once. If it does not come back on line, do not fly.",
    shows: {
      volts: { states: { low: 0.97, "in range": 0.025, high: 0.005 }, why: "battery voltage, no more" },
      ammeter: { states: { discharging: 0.97, charging: 0.03 }, why: "the battery gives" },
      reset: { states: { back: 0.35, same: 0.65 }, why: "a tripped field comes back" },
    },
  },
  {
    id: "regulator high",
    place: "engine",
    name: "voltage regulator set too high or stuck",
    what: "bus voltage above its range: the battery is being overcharged",
    rate: 0.004,
    grade: "stop",
    action: "Alternator off. Do not fly until a mechanic has checked it.",
    caution: "An overcharged battery gives off gas, and high voltage can damage the radios.",
    shows: {
      volts: { states: { high: 0.97, "in range": 0.025, low: 0.005 }, why: "nothing holds it back" },
      reset: { states: { back: 0.05, same: 0.95 }, why: "it is not a trip" },
    },
  },
  {
    id: "suction low",
    place: "engine",
    name: "suction low",
    what: "vacuum pump, regulator or hose: gyro instruments unreliable",
    rate: 0.005,
    grade: "ask",
    action: "Check again at run-up rpm. Still low: no instrument or night flight, and ask a mechanic.",
    only: ({ suction }) => suction,
    shows: {
      suction: { states: { low: 0.97, "in range": 0.025, high: 0.005 }, why: "it does not reach its range" },
      crossCheck: { states: { agrees: 0.9, disagrees: 0.1 }, why: "the gyros are slow too" },
    },
  },
  {
    id: "oil pressure low",
    place: "engine",
    name: "oil pressure low",
    what: "oil pump, relief valve or low oil level",
    rate: 0.003,
    grade: "stop",
    action: "Shut down now. Check the oil level and under the engine. Do not restart.",
    shows: {
      oilPressure: {
        states: { low: 0.97, "in range": 0.025, high: 0.005 },
        why: "it does not reach the arc",
      },
      crossCheck: {
        states: { agrees: 0.93, disagrees: 0.07 },
        why: "the other gauge or light says the same",
      },
    },
  },
  {
    id: "governor slow",
    place: "engine",
    name: "propeller governor slow",
    what: "propeller pitch responds late or not at all",
    rate: 0.006,
    grade: "ask",
    action: "Let the oil warm up, then cycle the propeller twice more. Still slow: do not fly.",
    only: ({ propeller }) => propeller === "constant speed",
    shows: {
      propeller: { states: { slow: 0.88, nothing: 0.1, answers: 0.02 }, why: "little or late change of rpm" },
      cycled: {
        states: { "quick now": 0.12, same: 0.88 },
        why: "if it is the governor, warm oil does not help",
      },
    },
  },
  {
    id: "idle low",
    place: "engine",
    name: "idle set too low",
    what: "the engine may stop on the approach or the landing roll",
    rate: 0.008,
    grade: "ask",
    action: "Have the idle adjusted. Until then, be ready for the engine to stop on the approach.",
    shows: {
      idle: {
        states: { low: 0.6, quits: 0.38, "in range": 0.02 },
        why: "the needle falls below the range; set so low that it matters, the engine often stops there",
      },
    },
  },
  {
    id: "induction leak",
    place: "cylinder",
    name: "induction leak at cylinder {cylinder}",
    what: "air leaks in behind the throttle: mixture lean at low manifold pressure",
    rate: 0.004,
    grade: "ask",
    action: "Have the intake pipe and its seals checked.",
    shows: {
      idleExhaust: {
        states: { "one apart": 0.45, "far apart": 0.3, "a little apart": 0.14, alike: 0.11 },
        why: "at idle the leak is a great part of its charge: lean and hot, or too lean to burn",
      },
      idle: {
        states: { "in range": 0.84, low: 0.03, quits: 0.03, high: 0.1 },
        why: "air that the stop does not know of",
      },
      morePower: {
        states: { "alike now": 0.9, same: 0.1 },
        why: "with the throttle open nothing is sucked in",
      },
    },
  },
  {
    id: "sensor fault",
    place: "cylinder",
    name: "faulty EGT probe, cylinder {cylinder}",
    what: "the probe, its connector or its wire; the engine itself is normal",
    rate: 0.01,
    grade: "note",
    action: "Do not rely on this EGT. Log a discrepancy.",
    shows: {
      probe: { states: { wild: 0.97, quiet: 0.03 }, why: "it jumps faster than metal can warm" },
      exhaust: {
        states: { hotter: 0.72, "one colder": 0.2, "no change": 0.02, "much hotter": 0.05, colder: 0.01 },
        why: "what it says of its cylinder is chance",
      },
      idleExhaust: {
        states: { alike: 0.55, "a little apart": 0.05, "one apart": 0.2, "far apart": 0.2 },
        why: "what it says of its cylinder is chance",
      },
      morePower: { states: { "alike now": 0.25, same: 0.75 }, why: "it goes on jumping" },
    },
  },
];

/** Share of features in which an unknown fault shows; its state is then uniform (own estimate). */
const SHOWS_PART = 0.2;

/**
 * A fault not in the library, or two at once. It competes like any other, with its own prior; its signs are unknown
 * (`uninformativeLikelihood`). Source: own estimate; one run-up in five hundred.
 */
export const UNKNOWN_FAULT: Fault = {
  id: "not on file",
  place: "engine",
  name: "a fault not in the library",
  what: "two faults at once, or one not in the library",
  rate: 0.002,
  grade: "ask",
  action: "Do not fly on a guess. Log what you saw and ask a mechanic.",
  shows: {},
};

/**
 * Likelihood of one feature under an unknown fault: mostly the healthy engine's (`likelihood`), otherwise uniform over `all`
 * states. Sums to one.
 */
export function uninformativeLikelihood({ states, why }: Likelihood, all: readonly string[]): Likelihood {
  const named = Object.values(states).reduce((sum, p) => sum + p, 0);
  const left = all.length - Object.keys(states).length;
  return {
    states: Object.fromEntries(
      all.map((state) => [
        state,
        (1 - SHOWS_PART) * (states[state] ?? (1 - named) / Math.max(1, left)) + SHOWS_PART / all.length,
      ]),
    ),
    why,
  };
}
