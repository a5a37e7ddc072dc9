import Papa from "papaparse";

/** Start of a cell, or of a line in it, that a spreadsheet would calculate. */
const FORMULA = /(^|[\r\n]+)(?=[=+\-@\t])/g;

type Cell = string | number | undefined | null;

/** Text that looks like a formula gets an apostrophe, as spreadsheets show text; numbers stay as they are. */
const defused = (cell: Cell): Cell => (typeof cell === "string" ? cell.replace(FORMULA, "$1'") : cell);

/** A table as CSV with one line per row. Every export goes through here, so that no cell is taken for a formula. */
export function toCsv(fields: readonly string[], rows: readonly (readonly Cell[])[]): string {
  const data = rows.map((row) => row.map(defused));
  return `${Papa.unparse({ fields: [...fields], data }, { newline: "\n" }).trimEnd()}\n`;
}
