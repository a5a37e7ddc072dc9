import type { AircraftType } from "../aircraft/aircraft-type";
import { formatNumber } from "../units/format";
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
      ? ` Wind from the ${departure.wind.side === "either" ? "side" : departure.wind.side}: make the first turn into the wind.`
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

/** Passenger briefing. `glider`: with canopy, without engine. Source: common practice; 14 CFR 91.107 and 91.519 (from memory). */
export function passengerBriefing({
  glider = false,
  parachute = false,
}: {
  glider?: boolean;
  parachute?: boolean;
} = {}): PassengerLine[] {
  return [
    {
      id: "belts",
      words: "This is how you fasten and release your seat belt. Keep it fastened until we have stopped.",
    },
    {
      id: "doors",
      words: glider
        ? "This handle closes and locks the canopy. Never lean on the canopy."
        : "This is how the door opens and locks. If it opens in flight, leave it alone: the aircraft still flies safely.",
    },
    {
      id: "exits",
      words: glider
        ? "Emergency exit: this handle jettisons the canopy. Release your belt and climb out over the side."
        : "Emergency exit: use this door or that one. Move away from the propeller, towards the tail.",
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
    ...(parachute
      ? [
          {
            id: "parachute",
            words: "This handle fires the aircraft's parachute. Pull it hard, but only if I cannot.",
          },
        ]
      : []),
  ];
}
