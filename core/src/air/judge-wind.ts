import { type Judgement, notAssessed, type Source } from "../judgement/judgement";
import { QuantityError } from "../units/convert";
import { formatNumber } from "../units/format";
import { type Wind, windComponents } from "./wind-components";

export interface CrosswindLimit {
  kt: number;
  source: Source;
}

export interface WindInput {
  runwayDeg: number;
  wind: Wind;
  /** The aircraft's demonstrated crosswind and the pilot's personal minimum, if on file. */
  limits: CrosswindLimit[];
}

/**
 * Judges crosswind and tailwind on a runway, at the gust speed if there is one, against the lowest limit on file.
 * Valid range: as windComponents; a gust below the mean wind throws QuantityError. Without a limit: "unjudged".
 * Source: that of each limit. A demonstrated crosswind is not a legal limit everywhere; here exceeding it means asking first.
 */
export function judgeWind({ runwayDeg, wind, limits }: WindInput): Judgement[] {
  if (wind.gustKt !== undefined && wind.gustKt > 0 && wind.gustKt < wind.kt)
    throw new QuantityError("The gust cannot be less than the mean wind. Check both.");
  const kt = Math.max(wind.kt, wind.gustKt ?? 0);
  const { headwindKt, crosswindKt } = windComponents(runwayDeg, { fromDeg: wind.fromDeg, kt });
  const cross = Math.abs(crosswindKt);
  const gust = kt > wind.kt ? " in gusts" : "";
  const from = cross < 0.5 ? "" : crosswindKt > 0 ? " from the right" : " from the left";
  const reading = { value: cross, unit: "kt" } as const;
  const along =
    headwindKt >= 0 ? `${formatNumber(headwindKt)} kt headwind` : `${formatNumber(-headwindKt)} kt tailwind`;
  const sentence = `${formatNumber(cross)} kt crosswind${from}${gust}, ${along}.`;
  const lowest = [...limits].sort((a, b) => a.kt - b.kt)[0];
  const crosswind: Judgement = lowest
    ? {
        id: "wind.cross",
        subject: "Crosswind",
        scope: "day",
        grade: cross <= lowest.kt ? "within limits" : "ask",
        reading,
        limit: `at most ${formatNumber(lowest.kt)} kt`,
        margin: { value: lowest.kt - cross, unit: "kt" },
        source: lowest.source,
        sentence,
        ...(cross > lowest.kt && { action: "Use another runway, or wait." }),
      }
    : { ...notAssessed("wind.cross", "Crosswind", `${sentence} No crosswind limit on file.`, reading) };
  if (headwindKt > -0.5) return [crosswind];
  return [
    crosswind,
    {
      id: "wind.tail",
      subject: "Tailwind",
      scope: "day",
      grade: "ask",
      reading: { value: -headwindKt, unit: "kt" },
      limit: "no tailwind",
      source: { kind: "common practice", text: "take off into wind", example: false },
      sentence: `${formatNumber(-headwindKt)} kt tailwind on this runway.`,
      action: "Check the windsock, and consider the opposite runway.",
      caution: "A tailwind greatly lengthens the take-off run. Check the handbook figures first.",
    },
  ];
}
