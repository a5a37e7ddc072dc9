import type { AircraftType } from "../aircraft/aircraft-type";
import type { Cabin } from "../aircraft/cabin";
import { capital, formatNumber } from "../units/format";
import type { Departure } from "./calculate-departure";
import { abortText } from "./departure-text";

/** One spoken step of a briefing. */
export interface BriefingStep {
  id: string;
  title: string;
  words: string;
}

/** Briefing input besides the calculated numbers. */
export interface BriefingInput {
  type: Pick<AircraftType, "engines" | "oil" | "performance" | "what">;
  departure: Departure;
  windWords?: string;
  /** Above the field, ft: set by the pilot or instructor, never proposed. */
  turnBackFt?: number;
  /** Launch method of a glider. */
  launch?: "winch" | "aerotow" | string;
  /** The pilot flying, in a crew of two. */
  whoFlies?: string;
}

const kt = (value: number) => `${formatNumber(Math.round(value))} knots`;

/**
 * Composes a take-off briefing from today's numbers for a single, a twin or a glider launch. Unknown values are named as unknown.
 * The height below which there is no turning back appears only if it was set. Source: common practice; FAA-H-8083-3 (from
 * memory). Complexity: O(1).
 */
export function composeBriefing(input: BriefingInput): BriefingStep[] {
  const { type, departure } = input;
  const first: BriefingStep = {
    id: "runway",
    title: "Runway and wind",
    words: [
      `Runway ${[...departure.runway.id].join(" ")}, ${formatNumber(departure.runway.declared?.toraM ?? departure.runway.lengthM)} metres, ${departure.runway.surface}.`,
      input.windWords ? `Wind ${input.windWords}.` : "Wind from the windsock.",
      ...(departure.wind
        ? [
            `Crosswind up to ${kt(departure.wind.crossKt)}${departure.wind.tailKt > 0.5 ? `, tailwind ${kt(departure.wind.tailKt)}` : ""}.`,
          ]
        : []),
    ].join(" "),
  };
  const flies = input.whoFlies
    ? [
        {
          id: "who",
          title: "Pilot flying",
          words: `${input.whoFlies} is pilot flying. Hand over with “You have control”, answered “I have control”.`,
        },
      ]
    : [];
  if (!type.oil && !type.performance) return [first, ...glider(input), ...flies];
  const { performance } = type;
  const normal: BriefingStep = {
    id: "normal",
    title: "Normal take-off",
    words: [
      "Full power, static rpm and pressures in the green, airspeed alive.",
      ...(performance
        ? [`Lift off at ${kt(performance.liftOffKt)}, climb at ${kt(performance.climbKt)}.`]
        : ["Lift-off and climb speeds from the handbook."]),
      ...(departure.takeOff
        ? [
            `Ground roll ${formatNumber(Math.ceil(departure.takeOff.rollM))} metres, ${formatNumber(Math.ceil(departure.takeOff.over50M))} metres to fifty feet.`,
          ]
        : []),
    ].join(" "),
  };
  const abort: BriefingStep = {
    id: "abort",
    title: "Abort",
    words: `${abortText(departure) ?? "No abort point calculated. Choose a mark halfway down the runway."} Throttle closed, brakes, straight ahead.`,
  };
  const below = input.turnBackFt;
  const failures: BriefingStep[] =
    (type.engines?.length ?? 1) > 1
      ? twin(input)
      : [
          {
            id: "failure-runway",
            title: "Engine failure with runway remaining",
            words: "Throttle closed, land straight ahead on the remaining runway, brakes.",
          },
          {
            id: "failure-low",
            title:
              below === undefined
                ? "Engine failure after lift-off"
                : `Engine failure below ${formatNumber(below)} ft`,
            words:
              "Nose down first, best glide speed. Land ahead, with only small turns left or right. Fuel, ignition and master off before touchdown.",
          },
          ...(below === undefined
            ? []
            : [
                {
                  id: "failure-high",
                  title: `Engine failure above ${formatNumber(below)} ft`,
                  words: `Above ${formatNumber(below)} feet, the height set before the flight: nose down first, then choose where to land. Turn into the wind.`,
                },
              ]),
        ];
  return [first, normal, abort, ...failures, ...flies];
}

function twin({ type: { performance }, departure }: BriefingInput): BriefingStep[] {
  const one = departure.oneEngine;
  const stays = one === undefined ? undefined : one.fpm > 0;
  return [
    {
      id: "failure-runway",
      title: "Engine failure before lift-off",
      words: "Both throttles closed, brakes, straight ahead.",
    },
    {
      id: "failure-low",
      title: "Engine failure, gear still down",
      words: "Both throttles closed, land straight ahead.",
    },
    {
      id: "failure-high",
      title: "Engine failure, climbing away",
      words: [
        `Blue line${performance?.oneEngineKt ? `, ${kt(performance.oneEngineKt)}` : ""}. Power, drag, identify, verify, feather.`,
        ...(stays === undefined
          ? ["Climb on one engine is not calculated for today."]
          : stays
            ? [
                `Climb on one engine today: ${formatNumber(Math.floor((one as { fpm: number }).fpm / 10) * 10)} feet per minute.`,
              ]
            : [
                "It will not climb on one engine today. Hold blue line and descend to the best landing area.",
              ]),
      ].join(" "),
    },
  ];
}

function glider({ departure, launch, turnBackFt }: BriefingInput): BriefingStep[] {
  const across =
    departure.wind && departure.wind.crossKt > 0.5
      ? ` Wind from the ${departure.wind.side === "either" ? "side" : departure.wind.side}: decide now which way to turn.`
      : "";
  const low = turnBackFt === undefined ? "low" : `below ${formatNumber(turnBackFt)} ft`;
  return [
    {
      id: "normal",
      title: launch === "winch" ? "Winch launch" : launch === "aerotow" ? "Aerotow" : "Launch",
      words: `Weak link and rope checked, hand on the release. ${launch === "winch" ? "Climb shallow at first. Speed outside limits: release." : "Stay level behind the tug. If you lose sight of it, release."}`,
    },
    {
      id: "failure-low",
      title: `Launch failure, ${low}`,
      words:
        "Nose down to the approach attitude, wait for approach speed, release. Land straight ahead. Airbrakes only at approach speed.",
    },
    {
      id: "failure-medium",
      title: "Launch failure, medium height",
      words: `Nose down, approach speed, release. If too high to land ahead: a short turn and a landing across or back, only at approach speed.${across}`,
    },
    {
      id: "failure-high",
      title: "Launch failure, high",
      words: "Nose down, approach speed, release. Fly a shortened circuit.",
    },
  ];
}

/** One instruction for passengers, in words for someone who has never flown. */
export interface PassengerLine {
  id: string;
  words: string;
}

const BELTS: Record<Cabin["belts"], string> = {
  "lap belt": "This is how you fasten and release your seat belt. Keep it fastened until we have stopped.",
  "shoulder belts":
    "This is how you fasten and release your shoulder and waist belts. Keep them fastened until we have stopped.",
  harness:
    "This is how you fasten and release your harness: one turn or push opens all of it. Keep it fastened until we have stopped.",
};

function doorsLine({ entry }: Cabin): string {
  return entry === "canopy"
    ? "This handle closes and locks the canopy. Never lean on the canopy. If it opens in flight, leave it to me: the aircraft still flies."
    : "This is how the door opens and locks. If it opens in flight, leave it alone: the aircraft still flies safely.";
}

function exitsLine({ entry, exits, jettison, propeller }: Cabin): string {
  const how = jettison
    ? "this handle throws off the canopy. Release your belts and climb out over the side."
    : entry === "canopy"
      ? "open the canopy with this handle, release your belts and climb out over the side."
      : `use this door or ${exits ?? "that one"}.`;
  return `Emergency exit: ${how}${propeller ? " Move away from the propeller, towards the tail." : ""}`;
}

const PARACHUTE: Record<NonNullable<Cabin["parachute"]>, string> = {
  worn: "You wear a parachute. If I call “bail out”: open the canopy, release the harness, climb out, then pull this handle all the way.",
  aircraft: "This handle fires the aircraft's parachute. Pull it hard, but only if I cannot.",
};

/**
 * Passenger briefing, made of what is on board by the type's file. Without a description of the cabin the pilot shows belts and exits;
 * nothing is invented. Source: common practice; 14 CFR 91.107 and 91.519 (from memory).
 */
export function passengerBriefing(cabin?: Cabin): PassengerLine[] {
  const safety = [
    ...(cabin?.extinguisher ? [`the fire extinguisher is ${cabin.extinguisher}`] : []),
    ...(cabin?.hammer ? [`the hammer to break the window is ${cabin.hammer}`] : []),
    ...(cabin?.beacon ? [`the emergency beacon is ${cabin.beacon}`] : []),
  ];
  return [
    {
      id: "belts",
      words: cabin
        ? BELTS[cabin.belts]
        : "Your pilot shows you how to fasten and release your belts. Keep them fastened until we have stopped.",
    },
    {
      id: "doors",
      words: cabin ? doorsLine(cabin) : "Your pilot shows you how the door or canopy opens and locks.",
    },
    {
      id: "exits",
      words: cabin ? exitsLine(cabin) : "Your pilot shows you every way out. Ask if you have not seen it.",
    },
    {
      id: "controls",
      words:
        "Keep feet and knees clear of the pedals and controls. No phone, bottle or other loose item on the floor.",
    },
    { id: "smoking", words: "No smoking and no flames in or near the aircraft." },
    {
      id: "quiet",
      words:
        "Please do not talk during taxi, take-off and landing. If you see another aircraft, or anything that worries you, say so at once.",
    },
    {
      id: "sick",
      words: "If you feel unwell, say so early. The sick bag is here, the fresh-air vent is there.",
    },
    {
      id: "landing",
      words:
        "If we have to land in a field: belt tight, glasses off, hands empty, head down, arms in front of your head. Get out once we have stopped.",
    },
    ...(safety.length > 0 ? [{ id: "equipment", words: `${capital(safety.join("; "))}.` }] : []),
    ...(cabin?.parachute ? [{ id: "parachute", words: PARACHUTE[cabin.parachute] }] : []),
  ];
}
