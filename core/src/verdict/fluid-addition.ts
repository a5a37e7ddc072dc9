import type { AircraftType } from "../aircraft/aircraft-type";
import type { EventData } from "../checklist/stream/events";
import { causeOf, type Judgement } from "../judgement/judgement";
import { oilAdditionFault } from "../oil/judge-oil";
import { WRONG_FUEL, wrongGrade } from "./judges/judge-uplifts";

/** Fuel or oil added outside a preflight. */
export type FluidAddition =
  | { type: "fuel.uplifted"; data: EventData["fuel.uplifted"] }
  | { type: "oil.added"; data: EventData["oil.added"] };

/**
 * Judges fuel or oil added outside a preflight: unapproved grade, oil that must not be added. The amount is checked against the
 * dipstick in the next preflight. Source: the type's grades; using unopened containers is common practice.
 */
export function judgeOutsidePreflight(
  type: Pick<AircraftType, "fuel" | "oil">,
  put: FluidAddition,
): Judgement[] {
  if (put.type === "fuel.uplifted") {
    const { grade, receipt } = put.data;
    const approved = type.fuel?.grades ?? [];
    if (!grade || approved.length === 0 || approved.includes(grade)) return [];
    return [
      {
        id: "fuel.uplift.grade",
        cause: WRONG_FUEL,
        subject: `Refuelled${receipt ? `, receipt ${receipt}` : ""}`,
        scope: "aircraft",
        ...wrongGrade(grade, approved),
      },
    ];
  }
  const { qt, sealed, grade, engine } = put.data;
  const against = oilAdditionFault({ qt, sealed, ...(grade && { grade }) }, type.oil, undefined);
  if (!against) return [];
  return [
    {
      id: "oil.added",
      cause: engine ? `oil.added.${engine}` : "oil.added",
      subject: engine ? `Oil added, ${engine} engine` : "Oil added",
      scope: "aircraft",
      grade: "ask",
      sentence: against,
      action: "The oil is already in. Ask the mechanic before engine start.",
    },
  ];
}

/** Its discrepancies, logged where that fluid is inspected, or at the start. */
export function logOutsidePreflight(
  type: Pick<AircraftType, "fuel" | "oil" | "stations">,
  put: FluidAddition,
): Omit<EventData["discrepancy.opened"], "discrepancyId">[] {
  const role = put.type === "oil.added" ? "oil" : "fuel";
  const station =
    type.stations.find((one) => one.role === role) ??
    type.stations.find((one) => one.phase === "fluids") ??
    type.stations[0];
  return judgeOutsidePreflight(type, put).map((judgement) => ({
    registration: put.data.registration,
    stationId: station?.id ?? "",
    text: `${judgement.subject}: ${judgement.sentence}`,
    grade: judgement.grade === "stop" ? "stop" : "ask",
    cause: causeOf(judgement),
  }));
}
