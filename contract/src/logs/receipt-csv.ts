import { readFuelUnit } from "@cravix/core/fuel/grade/fuel-amount";
import { FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import Papa from "papaparse";
import type { CsvFault, Receipt } from "../api/api-types";
import { toCsv } from "./to-csv";

export const RECEIPT_COLUMNS = [
  "receipt",
  "time",
  "registration",
  "tank",
  "amount",
  "unit",
  "grade",
] as const;

/** Reads pump receipts from CSV. Never throws; an ambiguous unit is rejected. */
export function readReceiptCsv(text: string): { receipts: Receipt[]; faults: CsvFault[] } {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const faults: CsvFault[] = [];
  for (const column of ["amount", "unit"])
    if (!meta.fields?.includes(column)) faults.push({ row: 1, column, expected: "a column with this name" });
  if (faults.length > 0) return { receipts: [], faults };
  const receipts = data.flatMap((line, i): Receipt[] => {
    const cell = (column: string) => (line[column] ?? "").trim();
    const fault = (column: string, expected: string) => {
      faults.push({ row: i + 2, column, expected });
      return [];
    };
    const amount = cell("amount") === "" ? Number.NaN : Number(cell("amount"));
    const unit = readFuelUnit(cell("unit"));
    const grade = cell("grade") || "100LL";
    if (!(amount > 0)) return fault("amount", "a number greater than zero, with a decimal point");
    if (!unit) return fault("unit", "one of L, US gal, imp gal, kg, lb; gallons must be US or imperial");
    if (!FUEL_GRADES.some((g) => g.id === grade))
      return fault("grade", `one of ${FUEL_GRADES.map((g) => g.id).join(", ")}`);
    const at = new Date(cell("time"));
    return [
      {
        receipt: cell("receipt").slice(0, 40),
        at: Number.isNaN(at.getTime()) ? "" : at.toISOString(),
        registration: cell("registration").toUpperCase(),
        ...(cell("tank") && { tankId: cell("tank") }),
        amount,
        unit,
        grade,
      },
    ];
  });
  return { receipts, faults };
}

/** A receipt as CSV, as the pump issues it. */
export function receiptCsv({ at, tankId = "", ...receipt }: Receipt): string {
  const line: Record<string, string | number> = { ...receipt, time: at, tank: tankId };
  const data = [RECEIPT_COLUMNS.map((column) => line[column])];
  return toCsv(RECEIPT_COLUMNS, data);
}
