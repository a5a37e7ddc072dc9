import type { RunUpReading, Side } from "../run-up/reading/run-up-reading";
import type { RunUpProfile } from "../run-up/run-up-profile";
import { capital } from "../units/format";
import type { Observation } from "./evidence/observations";

/** Something that a trace without prompts cannot tell by itself and the pilot can: one question, few answers. */
export interface OpenQuestion {
  id: "any side" | "which side" | "other side" | "heat" | "propeller" | "feel";
  words: string;
  answers: {
    words: string;
    /** What the answer amounts to. */
    told: Observation[];
    /** The only side that dropped was this one. */
    onlySide?: Side;
  }[];
}

/**
 * What to ask after a trace that nobody prompted: a side without a drop looks like one that was never tried, a heat or a propeller that does not answer
 * like one that was left out, and the two sides look alike. What has been answered is not asked again. Nothing is asked of a prompted run-up, nor of a
 * trace in which nobody ran up. Pure.
 */
export function openQuestions(
  reading: RunUpReading,
  profile: RunUpProfile,
  answered: ReadonlySet<OpenQuestion["id"]>,
): OpenQuestion[] {
  if (reading.prompted || !(reading.base || reading.tries.length > 0)) return [];
  const found: OpenQuestion[] = [];
  const word = (side: Side) => profile.sideWords?.[side] ?? side;
  if (reading.tries.length === 0) {
    if (answered.has("any side")) return [];
    const nothing = (["right", "left"] as const).flatMap((side) => triedForNothing(side, word(side)));
    return [
      {
        id: "any side",
        words: "Neither side dropped. Were they tried?",
        answers: [
          { words: "Tried: nothing dropped", told: nothing },
          { words: "Not tried", told: [] },
        ],
      },
    ];
  }
  const only = reading.right && !reading.left ? "right" : reading.left && !reading.right ? "left" : undefined;
  if (only && !answered.has("which side")) {
    const quit = reading[only]?.feel === "quit";
    found.push({
      id: "which side",
      words: quit ? "Which one was it that it stopped on?" : "Only one side dropped. Which one was it?",
      answers: (["right", "left"] as const).map((side) => ({
        words: capital(word(side)),
        told: [],
        onlySide: side,
      })),
    });
  } else if (only && !answered.has("other side")) {
    const side = only === "right" ? "left" : "right";
    found.push({
      id: "other side",
      words: `And ${word(side)}?`,
      answers: [
        {
          words: "Tried: nothing dropped",
          told: triedForNothing(side, word(side)),
        },
        { words: "Not tried", told: [notTurned(side, word(side))] },
      ],
    });
  }
  if (profile.heat !== "none" && !reading.heat && !answered.has("heat")) {
    const what = profile.heat === "alternate air" ? "alternate air" : "the heat";
    found.push({
      id: "heat",
      words: `${capital(what)} does not show. Was it tried?`,
      answers: [
        {
          words: "Tried: nothing changed",
          // Another way in for the air costs an injected engine so little that nothing may be seen.
          told:
            profile.heat === "alternate air"
              ? []
              : [{ feature: "heat", state: "nothing", words: "Heat: nothing changed." }],
        },
        { words: "Not tried", told: [] },
      ],
    });
  }
  if (profile.propeller === "constant speed" && !reading.propeller && !answered.has("propeller"))
    found.push({
      id: "propeller",
      words: "The propeller does not show. Was it cycled?",
      answers: [
        {
          words: "Cycled: no answer",
          told: [{ feature: "propeller", state: "nothing", words: "Propeller: no answer." }],
        },
        { words: "Not cycled", told: [] },
      ],
    });
  return found;
}

function triedForNothing(side: Side, word: string): Observation[] {
  return [
    { feature: "drop", state: "none", side, words: `On ${word} nothing dropped.` },
    { feature: "turned", state: "confirmed", side, words: `Asked: the key was on ${word}.` },
  ];
}

function notTurned(side: Side, word: string): Observation {
  return { feature: "turned", state: "not sure", side, words: `Asked: ${word} was not tried.` };
}

/**
 * The same reading with its only side called by another name: which of the two it was, a trace cannot tell. Readings with both sides or with none are
 * given back as they are.
 */
export function nameOnlySide(reading: RunUpReading, side: Side): RunUpReading {
  const other = side === "right" ? "left" : "right";
  const made = reading[other];
  if (!made || reading[side]) return reading;
  const { [other]: _was, ...rest } = reading;
  return {
    ...rest,
    tries: reading.tries.map((one) => ({ ...one, side })),
    steps: reading.steps.map((step) => (step.step === other ? { ...step, step: side } : step)),
    notes: reading.notes.filter(({ side: of }) => of === undefined),
    [side]: { ...made, side },
  };
}
