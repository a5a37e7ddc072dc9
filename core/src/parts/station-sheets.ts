import type { Station } from "../aircraft/aircraft-type";
import { fillTemplate } from "./fill-template";
import type { StationCard, StationSheet } from "./station-sheet";

/** A station of one type, with the usual order and cards. */
export interface StationOnFile extends Station {
  order: readonly string[];
  cards: readonly StationCard[];
}

/** Stations by id; one with "{side}" counts as a left and a right one. */
export function stationSheets(sheets: readonly StationSheet[]): Map<string, StationSheet> {
  return new Map(
    sheets.flatMap((sheet) =>
      (sheet.id.includes("{side}") ? ["left", "right"] : [""]).map((side) => {
        const { order, ...filled } = fillTemplate(sheet, { side });
        const ids = sheet.order.map((id) => id.replaceAll("{side}", side));
        return [filled.id, { ...filled, order: ids }] as const;
      }),
    ),
  );
}
