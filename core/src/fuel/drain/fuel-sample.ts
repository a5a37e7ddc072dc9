import type { FindingGrade } from "../../judgement/judgement";
import { capital } from "../../units/format";
import { type FuelColour, fuelGrade, gradesOfColour } from "../grade/fuel-grades";

/** Appearance of a fuel sample against the light. */
export const SAMPLE_LOOKS = [
  "clean",
  "water",
  "cloudy",
  "grit",
  "wrong colour",
  "kerosene smell",
  "colourless",
] as const;
export type SampleLook = (typeof SAMPLE_LOOKS)[number];

/** Drop on white paper: gasoline dries away, kerosene leaves a greasy ring, water stays wet. */
export const PAPER_TESTS = ["dries away", "greasy ring", "stays wet"] as const;
export type PaperTest = (typeof PAPER_TESTS)[number];

/** One sample from one drain. */
export interface Sample {
  look: SampleLook;
  colour?: FuelColour;
  paper?: PaperTest;
  /** Draining time in seconds, if timed. */
  seconds?: number;
}

export interface SampleJudgement {
  /** "drain" can be cured by draining; the others cannot. */
  outcome: "clean" | "drain" | "other grade" | "finding";
  grade: "within limits" | FindingGrade;
  sentence: string;
  action: string;
}

const WHAT_WAS_PUMPED = "Ask which fuel was added and check the receipt.";
const STOP = "Do not fly. Draining a sample does not help: the tank must be emptied.";

/**
 * Judges one sample by colour, smell and paper test, and whether draining can help. `approved` are the ids of this aircraft's
 * approved grades, the usual one first.
 * Sources: dyes by ASTM D910, D7547, EN 228 and D1655 (from memory); smell, paper test and "pure water looks clean" are common
 * practice. Mixed dyes can cancel to colourless (common practice).
 */
export function judgeSample({ look, colour, paper }: Sample, approved: readonly string[]): SampleJudgement {
  const usual = fuelGrade(approved[0] ?? "");
  const drain = (sentence: string, action = "Discard it, and drain again."): SampleJudgement => ({
    outcome: "drain",
    grade: "ask",
    sentence,
    action,
  });
  switch (look) {
    case "clean":
      return {
        outcome: "clean",
        grade: "within limits",
        sentence: `Clear, ${usual?.colours[0] ?? "the right colour"}, no water, no grit.`,
        action: "",
      };
    case "water":
      return drain("Water in the fuel. It is heavier and lies at the bottom.");
    case "cloudy":
      return drain(
        "Cloudy: fine water droplets or air. Air clears from the bottom up within a minute, water does not.",
        "Let the sample stand for a minute, then discard it and drain again.",
      );
    case "grit":
      return drain("Grit or rust in the fuel.");
    case "kerosene smell":
      return {
        outcome: "finding",
        grade: "stop",
        sentence: "Smells of kerosene: it causes detonation in this engine.",
        action: STOP,
      };
    case "colourless":
      return judgeColourless(paper, approved);
    case "wrong colour":
      return judgeColour(colour, approved, usual?.colours[0]);
  }
}

function judgeColourless(paper: PaperTest | undefined, approved: readonly string[]): SampleJudgement {
  if (paper === "stays wet")
    return {
      outcome: "drain",
      grade: "ask",
      sentence: "All water: it looked clean because there was no fuel to compare it with.",
      action: "Discard it and drain again until fuel comes.",
    };
  if (paper === "greasy ring")
    return {
      outcome: "finding",
      grade: "stop",
      sentence: "A greasy ring on the paper: kerosene.",
      action: STOP,
    };
  const undyed = approved.map(fuelGrade).find((grade) => grade?.colours.includes("colourless"));
  if (paper === "dries away")
    return undyed
      ? {
          outcome: "other grade",
          grade: "note",
          sentence: `Undyed fuel: ${undyed.name} looks like this and is approved for this aircraft.`,
          action: WHAT_WAS_PUMPED,
        }
      : {
          outcome: "finding",
          grade: "stop",
          sentence: "Fuel without its usual dye: another grade, or two grades mixed whose dyes cancel out.",
          action: `${STOP} ${WHAT_WAS_PUMPED}`,
        };
  return {
    outcome: "finding",
    grade: "ask",
    sentence: "Colourless: water, kerosene or undyed fuel.",
    action: "Smell it and put a drop on white paper.",
  };
}

function judgeColour(
  colour: FuelColour | undefined,
  approved: readonly string[],
  usual: FuelColour | undefined,
): SampleJudgement {
  const found = colour ? gradesOfColour(colour) : [];
  const allowed = found.find((grade) => approved.includes(grade.id));
  if (allowed)
    return {
      outcome: "other grade",
      grade: "note",
      sentence: `${capital(colour ?? "")} is ${allowed.name}: not the usual grade, but approved for this aircraft.`,
      action: WHAT_WAS_PUMPED,
    };
  const names = found.map((grade) => grade.name).join(" or ");
  return {
    outcome: "finding",
    grade: "stop",
    sentence: names
      ? `${capital(colour ?? "")} is ${names}: not approved for this aircraft.`
      : `Not ${usual ?? "the right colour"}, and no single grade has this colour: mixed fuel.`,
    action: `${STOP} ${WHAT_WAS_PUMPED}`,
  };
}
