import { otherSide } from "../engine/side";
import type { MagnetoSideOrder } from "../run-up/reading/magneto-side-order";
import type { RunUpReading, Side } from "../run-up/reading/run-up-reading";
import { isUnsteady } from "../run-up/reading/unsteady";
import type { RunUpProfile } from "../run-up/run-up-profile";
import { capital } from "../units/format";
import type { Observation } from "./evidence/observations";

/** Something that a trace without prompts cannot tell by itself and the pilot can: one question, few answers. */
export interface OpenQuestion {
  id: "any side" | "order" | "which side" | "other side" | "heat" | "propeller" | "feel";
  words: string;
  answers: {
    words: string;
    /** What the answer amounts to. */
    told: Observation[];
    /** What it says of the sides: the trace is then read with it. */
    sides?: MagnetoSideOrder;
  }[];
}

/**
 * What to ask after a trace that nobody prompted: the two sides look alike, two tries of one side like one of each, a side without a drop like one that was
 * never tried, and a heat or a propeller that does not answer like one that was left out. That the trace missed what did happen can be said of each. What has
 * been answered is not asked again. Nothing is asked of a prompted run-up, nor of a trace in which nobody ran up or out of which nothing can be read. `reading` is read with what was told of the
 * sides so far, `profile` is the type's own. Pure.
 */
export function openQuestions(
  reading: RunUpReading,
  profile: RunUpProfile,
  answered: ReadonlySet<OpenQuestion["id"]>,
): OpenQuestion[] {
  if (reading.prompted || isUnsteady(reading) || !(reading.base || reading.tries.length > 0)) return [];
  const found: OpenQuestion[] = [];
  const word = (side: Side) => profile.sideWords?.[side] ?? side;
  if (reading.tries.length === 0) {
    if (answered.has("any side")) return [];
    const first = profile.firstSide;
    const only = (side: Side) => {
      const other = otherSide(side);
      return {
        words: `Only ${word(side)} dropped`,
        told: [missed(side, word(side)), ...triedForNothing(other, word(other))],
        sides: { first: side },
      };
    };
    const on = (side: Side) => ({
      words: `The engine stopped on ${word(side)}`,
      told: stoppedOn(side, word(side)),
      sides: { first: side },
    });
    const sides = ["right", "left"] as const;
    return [
      {
        id: "any side",
        words: "This trace shows no magneto drop. Did you check both sides?",
        answers: [
          {
            words: "Checked: no drop",
            told: sides.flatMap((side) => triedForNothing(side, word(side))),
            sides: { first },
          },
          only("right"),
          only("left"),
          {
            words: "Both dropped, but not in the trace",
            told: sides.map((side) => missed(side, word(side))),
            sides: { first },
          },
          on("right"),
          on("left"),
          { words: "Not checked", told: [] },
        ],
      },
    ];
  }
  if (reading.right && reading.left && !answered.has("order")) {
    const first = profile.firstSide;
    found.push({
      id: "order",
      words: "Which side did you check first?",
      answers: [
        ...[first, first === "right" ? ("left" as const) : ("right" as const)].map((side) => ({
          words: capital(word(side)),
          told: [],
          sides: { first: side },
        })),
        { words: "The same side each time", told: [], sides: { same: true } },
      ],
    });
  }
  const only = reading.right && !reading.left ? "right" : reading.left && !reading.right ? "left" : undefined;
  if (only && !answered.has("which side")) {
    const quit = reading[only]?.feel === "quit";
    found.push({
      id: "which side",
      words: quit ? "On which side did the engine stop?" : "Only one side shows a drop. Which side was it?",
      answers: (["right", "left"] as const).map((side) => ({
        words: capital(word(side)),
        told: [],
        sides: { first: side },
      })),
    });
  } else if (only && !answered.has("other side")) {
    const side = otherSide(only);
    found.push({
      id: "other side",
      words: `What about ${word(side)}?`,
      answers: [
        {
          words: "Checked: no drop",
          told: triedForNothing(side, word(side)),
        },
        { words: "It dropped, but not in the trace", told: [missed(side, word(side))] },
        { words: "The engine stopped on it", told: stoppedOn(side, word(side)) },
        { words: "Not checked", told: [notTurned(side, word(side))] },
      ],
    });
  }
  // Another way in for the air costs an injected engine so little that nothing may be seen: no answer would tell anything.
  if (profile.heat === "carburettor heat" && !reading.heat && !answered.has("heat"))
    found.push({
      id: "heat",
      words: "The trace does not show carburettor heat. Did you check it?",
      answers: [
        {
          words: "Checked: no change",
          told: [{ feature: "heat", state: "nothing", words: "Carburettor heat: no change." }],
        },
        { words: "It changed, but not in the trace", told: [] },
        { words: "Not checked", told: [] },
      ],
    });
  if (profile.propeller === "constant speed" && !reading.propeller && !answered.has("propeller"))
    found.push({
      id: "propeller",
      words: "The trace does not show the propeller. Did you cycle it?",
      answers: [
        {
          words: "Cycled: no response",
          told: [{ feature: "propeller", state: "nothing", words: "Propeller: no response." }],
        },
        { words: "It responded, but not in the trace", told: [] },
        { words: "Not cycled", told: [] },
      ],
    });
  return found;
}

function triedForNothing(side: Side, word: string): Observation[] {
  return [
    { feature: "drop", state: "none", side, words: `No rpm drop on ${word}.` },
    { feature: "turned", state: "confirmed", side, words: `Pilot reports: the key was on ${word}.` },
  ];
}

/** With lines far apart a side on which it stops for a second leaves no trace. */
function stoppedOn(side: Side, word: string): Observation[] {
  return [
    { feature: "drop", state: "quit", side, words: `Pilot reports: the engine stopped on ${word}.` },
    { feature: "turned", state: "confirmed", side, words: `Pilot reports: the key was on ${word}.` },
  ];
}

/** It was turned and it dropped: the trace says nothing of it either way, and its number is the pilot's to type. */
function missed(side: Side, word: string): Observation {
  return {
    feature: "turned",
    state: "confirmed",
    side,
    words: `Pilot reports: it dropped on ${word}, but not in the trace.`,
  };
}

function notTurned(side: Side, word: string): Observation {
  return { feature: "turned", state: "not sure", side, words: `Pilot reports: ${word} was not checked.` };
}
