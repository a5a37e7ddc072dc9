import { otherSide } from "../engine/side";
import type { MagnetoSideOrder } from "../run-up/reading/magneto-side-order";
import type { RunUpReading, Side } from "../run-up/reading/run-up-reading";
import { isUnsteady } from "../run-up/reading/unsteady";
import type { RunUpProfile } from "../run-up/run-up-profile";
import { capital } from "../units/format";
import type { Observation } from "./evidence/observations";

/** A question only the pilot can answer, because an unprompted trace cannot. */
export interface OpenQuestion {
  id: "any side" | "order" | "which side" | "other side" | "heat" | "propeller" | "feel";
  words: string;
  answers: {
    words: string;
    /** Observations the answer stands for. */
    told: Observation[];
    /** Order of sides the answer implies: the trace is then read again with it. */
    sides?: MagnetoSideOrder;
  }[];
}

/**
 * Questions after an unprompted trace: the two sides look alike, one side checked twice looks like one of each, a side without a
 * drop like one not checked, and heat or propeller without effect like a skipped step. Each can be answered with "the trace
 * missed it". Answered questions are not repeated. None for prompted run-ups, or for traces without a readable run-up. `reading`
 * uses the answers about sides so far, `profile` is the type's. Pure.
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
  // Alternate air costs an injected engine so little that its absence tells nothing.
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

/** In a coarse trace a stop of one second leaves no sign. */
function stoppedOn(side: Side, word: string): Observation[] {
  return [
    { feature: "drop", state: "quit", side, words: `Pilot reports: the engine stopped on ${word}.` },
    { feature: "turned", state: "confirmed", side, words: `Pilot reports: the key was on ${word}.` },
  ];
}

/** The pilot checked it and it dropped: the trace tells nothing about it, and the pilot can enter the number. */
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
