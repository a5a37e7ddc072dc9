import type { Judgement, Source } from "../judgement/judgement";
import { type WeatherReport, weatherText } from "./report";

/** Weather that a type's file may allow to fly in. */
export const ACCEPTED_WEATHER = ["thunderstorm", "freezing precipitation"] as const;
export type AcceptedWeather = (typeof ACCEPTED_WEATHER)[number];

interface Hazard {
  id: string;
  name: string;
  /** Weather groups that report it. */
  groups: RegExp;
  /** Its grade in a report of now, at the field. */
  now: "stop" | "ask";
  unless?: AcceptedWeather;
}

/** Weather to stay out of. Common practice: FAA-H-8083-28, Aviation Weather Handbook (from memory). */
export const HAZARDS: readonly Hazard[] = [
  { id: "thunderstorm", name: "Thunderstorm", groups: /TS/, now: "stop", unless: "thunderstorm" },
  {
    id: "freezing",
    name: "Freezing precipitation",
    groups: /FZ(RA|DZ|UP)/,
    now: "stop",
    unless: "freezing precipitation",
  },
  { id: "funnel", name: "Funnel cloud", groups: /FC/, now: "stop" },
  { id: "hail", name: "Hail", groups: /GR/, now: "stop" },
  { id: "squall", name: "Squalls", groups: /SQ/, now: "ask" },
  { id: "fog", name: "Fog", groups: /^FG|FZFG/, now: "ask" },
];

const SOURCE: Source = {
  kind: "common practice",
  text: "FAA-H-8083-28, weather hazards: stay out of them (from memory)",
  example: false,
};

/**
 * Judges hazards in the report of now. At the field they are a stop, except squalls and fog, which are asked about, as is anything in
 * the vicinity. `accepted`: what the type's file allows. Never throws. Complexity: O(groups).
 * Source: common practice.
 */
export function presentHazards(
  report: Pick<WeatherReport, "weather" | "clouds" | "hiddenClouds" | "windShear" | "closed">,
  accepted: readonly AcceptedWeather[] = [],
): Judgement[] {
  const made = (id: string, subject: string, grade: Judgement["grade"], sentence: string): Judgement => ({
    id: `weather.${id}`,
    cause: `weather.${id}`,
    subject,
    scope: "day",
    grade,
    source: SOURCE,
    sentence,
    action: "Wait, or do not go.",
  });
  const weather = HAZARDS.flatMap(({ id, name, groups, now, unless }): Judgement[] => {
    const found = report.weather.filter((group) => groups.test(group));
    if (found.length === 0) return [];
    const near = found.every((group) => group.startsWith("VC"));
    const allowed = unless !== undefined && accepted.includes(unless);
    return [
      made(id, name, near || allowed ? "ask" : now, `Reported now: ${found.map(weatherText).join(", ")}.`),
    ];
  });
  const { windShear = [], closed = [], clouds, hiddenClouds = [] } = report;
  const cb = clouds.some(({ kind }) => kind === "CB") || hiddenClouds.includes("CB");
  return [
    ...weather,
    ...(windShear.length > 0
      ? [made("shear", "Wind shear", "ask", `Wind shear reported: ${windShear.join(", ")}.`)]
      : []),
    ...(closed.length > 0
      ? [
          made(
            "closed",
            "Closed by snow",
            "stop",
            closed.includes("all")
              ? "The field is closed by snow."
              : `Closed by snow: runway ${closed.join(", ")}.`,
          ),
        ]
      : []),
    ...(cb && !weather.some(({ id }) => id === "weather.thunderstorm")
      ? [
          made(
            "cumulonimbus",
            "Cumulonimbus",
            "watch",
            "Cumulonimbus reported: expect gusts and wind shifts.",
          ),
        ]
      : []),
  ];
}
