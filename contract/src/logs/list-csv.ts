import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { type PaperLine, paperLines } from "../files/list-paper";
import { toCsv } from "./to-csv";

const COLUMNS = [
  "step",
  "station",
  "title",
  "good",
  "why",
  "today",
  "caution",
] as const satisfies readonly (keyof PaperLine)[];

/** Today's checklist as CSV, one line per item. */
export function listCsv(list: ComposedList): string {
  return toCsv(
    COLUMNS,
    paperLines(list).map((line) => COLUMNS.map((column) => line[column])),
  );
}
