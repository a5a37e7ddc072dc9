import type { TraceColumn, TraceReading } from "@cravix/contract/trace";
import { kindOf, type UnitKind } from "@cravix/contract/trace-columns";
import { readNote, saveNote } from "../../device/log/notes";
import { readTraceFile } from "../../device/workers/run-up-work";

type Told = Partial<Record<UnitKind, string>>;

/** Key by column names, so that another monitor in the same aircraft is asked about again. */
const noteOf = (registration: string, columns: readonly TraceColumn[]): string =>
  `monitor units:${registration}:${columns.map(({ header }) => header).join("|")}`;

export const isOf = ({ field }: TraceColumn, kind: UnitKind): boolean =>
  field !== undefined && field !== "time" && kindOf(field) === kind;

/** Saves confirmed units of a monitor. */
export async function saveConfirmedUnits(
  registration: string,
  columns: readonly TraceColumn[],
): Promise<void> {
  const told: Told = {};
  for (const { field, unit, told: said } of columns)
    if (said && unit && field && field !== "time") told[kindOf(field)] = unit;
  await saveNote(noteOf(registration, columns), told);
}

/** Reads a file again with units confirmed earlier for this monitor. */
export async function withToldUnits(
  registration: string,
  file: Blob,
  read: TraceReading,
): Promise<TraceReading> {
  if (read.questions.length === 0) return read;
  const told = await readNote<Told>(noteOf(registration, read.columns)).catch(() => undefined);
  if (!told || !read.questions.some(({ kind }) => told[kind] !== undefined)) return read;
  const asked = new Set(read.questions.map(({ kind }) => kind));
  return readTraceFile(
    file,
    read.columns.map((column) => {
      const { field } = column;
      if (!field || field === "time") return column;
      const kind = kindOf(field);
      const unit = told[kind];
      return unit && asked.has(kind) ? { ...column, unit, told: true as const } : column;
    }),
  );
}
