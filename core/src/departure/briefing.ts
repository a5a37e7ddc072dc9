import type { AircraftType } from "../aircraft/aircraft-type";
import { formatNumber } from "../units/format";
import { abortWords } from "./departure-words";
import type { Departure } from "./reckon";

/** One step of a briefing, said aloud. */
export interface BriefingStep {
  id: string;
  title: string;
  words: string;
}

/** What a briefing is made of besides the numbers. */
export interface BriefingInput {
  type: Pick<AircraftType, "engines" | "oil" | "performance" | "what">;
  departure: Departure;
  windWords?: string;
  /** Above the field, ft: set by pilot or instructor. Nothing proposes one. */
  turnBackFt?: number;
  /** A glider's launch. */
  launch?: "winch" | "aerotow" | string;
  /** Who flies, where there are two. */
  whoFlies?: string;
}

const kt = (value: number) => `${formatNumber(Math.round(value))} knots`;

/**
 * A take-off briefing of today's numbers, step by step, by what is flown: one engine, two, or a launch. What is not known is said to be not known. The height below which
 * nobody turns back is only said where somebody has set it. Source: common practice; FAA-H-8083-3 (from memory). Complexity: O(1).
 */
export function composeBriefing(input: BriefingInput): BriefingStep[] {
  const { type, departure } = input;
  const first: BriefingStep = {
    id: "runway",
    title: "Runway and wind",
    words: [
      `Runway ${[...departure.runway.id].join(" ")}, ${formatNumber(departure.runway.declared?.toraM ?? departure.runway.lengthM)} metres of ${departure.runway.surface}.`,
      input.windWords ? `Wind ${input.windWords}.` : "The wind is as the sock says.",
      ...(departure.wind
        ? [
            `${kt(departure.wind.crossKt)} across at most${departure.wind.tailKt > 0.5 ? `, ${kt(departure.wind.tailKt)} from behind` : ""}.`,
          ]
        : []),
    ].join(" "),
  };
  const flies = input.whoFlies
    ? [
        {
          id: "who",
          title: "Who flies",
          words: `${input.whoFlies} flies. “My controls”, “your controls”: said both ways.`,
        },
      ]
    : [];
  if (!type.oil && !type.performance) return [first, ...glider(input), ...flies];
  const { performance } = type;
  const normal: BriefingStep = {
    id: "normal",
    title: "Normal",
    words: [
      "Full power, static rpm and pressures in the green, airspeed alive.",
      ...(performance
        ? [`Lift off at ${kt(performance.liftOffKt)}, climb at ${kt(performance.climbKt)}.`]
        : ["Lift-off and climb speeds by the handbook."]),
      ...(departure.takeOff
        ? [
            `${formatNumber(Math.ceil(departure.takeOff.rollM))} metres on the ground, ${formatNumber(Math.ceil(departure.takeOff.over50M))} to fifty feet.`,
          ]
        : []),
    ].join(" "),
  };
  const abort: BriefingStep = {
    id: "abort",
    title: "Abort",
    words: `${abortWords(departure) ?? "The abort point is not reckoned: choose a mark at half of the run."} Throttle closed, brakes, straight on.`,
  };
  const below = input.turnBackFt;
  const failures: BriefingStep[] =
    (type.engines?.length ?? 1) > 1
      ? twin(input)
      : [
          {
            id: "failure-runway",
            title: "Failure with runway left",
            words: "Throttle closed, land straight ahead on what is left, brakes.",
          },
          {
            id: "failure-low",
            title: below === undefined ? "Failure after lift-off" : `Failure below ${formatNumber(below)} ft`,
            words:
              "Nose down first, best glide. Land ahead, within what is seen left and right. Fuel, ignition, master off before touching down.",
          },
          ...(below === undefined
            ? []
            : [
                {
                  id: "failure-high",
                  title: `Failure above ${formatNumber(below)} ft`,
                  words: `Above ${formatNumber(below)} feet, as set beforehand: nose down, then decide where; towards the wind.`,
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
      words: "Both throttles closed, brakes, straight on.",
    },
    {
      id: "failure-low",
      title: "Engine failure, gear still down",
      words: "Both throttles closed, land ahead.",
    },
    {
      id: "failure-high",
      title: "Engine failure, climbing away",
      words: [
        `Blue line${performance?.oneEngineKt ? `, ${kt(performance.oneEngineKt)}` : ""}. Power, drag, identify, verify, feather.`,
        ...(stays === undefined
          ? ["Whether it climbs on one today is not reckoned."]
          : stays
            ? [
                `Today it climbs on one: ${formatNumber(Math.floor((one as { fpm: number }).fpm / 10) * 10)} feet a minute.`,
              ]
            : ["Today it does not climb on one: drift down at blue line, to where it can be landed."]),
      ].join(" "),
    },
  ];
}

function glider({ departure, launch, turnBackFt }: BriefingInput): BriefingStep[] {
  const across =
    departure.wind && departure.wind.crossKt > 0.5
      ? ` Wind from the ${departure.wind.side === "either" ? "side" : departure.wind.side}: the first turn goes into it.`
      : "";
  const low = turnBackFt === undefined ? "low" : `below ${formatNumber(turnBackFt)} ft`;
  return [
    {
      id: "normal",
      title: launch === "winch" ? "Winch launch" : launch === "aerotow" ? "Aerotow" : "Launch",
      words: `Weak link and rope seen, hand at the release. ${launch === "winch" ? "Shallow at first, speed within its limits, else released." : "Behind the tug, level; it is lost from sight: release."}`,
    },
    {
      id: "failure-low",
      title: `Launch failure, ${low}`,
      words:
        "Nose down to approach attitude first, wait for the speed, release. Land straight ahead, brakes only with the speed there.",
    },
    {
      id: "failure-medium",
      title: "Launch failure, medium height",
      words: `Nose down, speed, release. Too high for straight ahead: a short turn and a landing across or back only with the speed there.${across}`,
    },
    {
      id: "failure-high",
      title: "Launch failure, high",
      words: "Nose down, speed, release, a shortened circuit.",
    },
  ];
}

/** What passengers are told, each once, in words for somebody who has never flown. */
export interface PassengerLine {
  id: string;
  words: string;
}

/** The passengers' briefing. `glider`: with canopy, without engine. Source: common practice; 14 CFR 91.107 and 91.519 (from memory). */
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
      words: "Your belt: this is how it closes, this is how it opens. It stays closed from start to stop.",
    },
    {
      id: "doors",
      words: glider
        ? "The canopy: closed and locked by this handle. Never lean on it."
        : "The door: this is how it opens and how it locks. If it opens in flight: nothing happens, leave it.",
    },
    {
      id: "exits",
      words: glider
        ? "Out in a hurry: this handle throws the canopy off. Belt open, over the side."
        : "Out in a hurry: through this door, or that one. Away from the propeller, towards the tail.",
    },
    {
      id: "controls",
      words: "Feet and knees clear of pedals and stick. Nothing loose on the floor: telephone, bottle.",
    },
    { id: "smoking", words: "No smoking, no flames, in it or near it." },
    {
      id: "quiet",
      words:
        "Taxiing, take-off and landing: quiet, please. If you see another aircraft or anything that worries you: say it at once.",
    },
    { id: "sick", words: "Not well? Say so early. The bag is here, the fresh air there." },
    {
      id: "landing",
      words:
        "If we have to land in a field: belt tight, glasses off, nothing in your hands, head down, arms before it. Out when it stands.",
    },
    ...(parachute
      ? [
          {
            id: "parachute",
            words: "This handle fires the parachute of the aircraft. Only if I cannot: pull it hard.",
          },
        ]
      : []),
  ];
}
