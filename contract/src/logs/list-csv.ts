import type { ComposedList } from "@cravix/core";
import Papa from "papaparse";
import { paperLines } from "../files/list-paper";

/** Today's checklist as CSV, one line per item. */
export function listCsv(list: ComposedList): string {
  return Papa.unparse(paperLines(list));
}
