import type { TraceColumn, TraceReading } from "@cravix/contract/trace";

/** A file of an engine monitor as read, and its columns as they are used now. */
export interface ReadFile {
  file: File;
  read: TraceReading;
  columns: TraceColumn[];
  /** Column being assigned. */
  editing?: number;
}

/** State of the loaded file. The previous file stays while another is being read, and if that fails. */
export type TraceFile =
  | { name: "none" }
  | { name: "reading"; before?: ReadFile }
  | { name: "read"; now: ReadFile }
  | { name: "failed"; problem: string; before?: ReadFile };

export type TraceFileStep =
  | { type: "picked" }
  | { type: "read"; file: File; read: TraceReading }
  | { type: "failed"; problem: string }
  | { type: "editing"; column: number | undefined }
  | { type: "assigned"; column: number; change: Partial<TraceColumn> }
  | { type: "units told"; columns: TraceColumn[] };

/** The file shown, if any. */
export const shownFile = (state: TraceFile): ReadFile | undefined => {
  if (state.name === "none") return undefined;
  return state.name === "read" ? state.now : state.before;
};

/** Next state of the file. A step that does not belong to the state changes nothing. */
export function traceFile(state: TraceFile, step: TraceFileStep): TraceFile {
  const shown = shownFile(state);
  switch (step.type) {
    case "picked":
      return { name: "reading", ...(shown && { before: shown }) };
    case "read":
      return {
        name: "read",
        now: { file: step.file, read: step.read, columns: step.read.columns },
      };
    case "failed":
      return { name: "failed", problem: step.problem, ...(shown && { before: shown }) };
    default:
      return shown ? withShown(state, changed(shown, step)) : state;
  }
}

function withShown(state: TraceFile, shown: ReadFile): TraceFile {
  if (state.name === "none") return state;
  return state.name === "read" ? { name: "read", now: shown } : { ...state, before: shown };
}

function changed(
  shown: ReadFile,
  step: Extract<TraceFileStep, { type: "editing" | "assigned" | "units told" }>,
): ReadFile {
  const { editing: _, ...rest } = shown;
  switch (step.type) {
    case "editing":
      return step.column === undefined ? rest : { ...rest, editing: step.column };
    case "assigned":
      return { ...shown, columns: assigned(shown.columns, step.column, step.change) };
    case "units told":
      return { ...shown, columns: step.columns };
  }
}

/** Columns after one was assigned by hand: each channel has one column. */
function assigned(
  columns: readonly TraceColumn[],
  index: number,
  change: Partial<TraceColumn>,
): TraceColumn[] {
  return columns.map((column) => {
    if (column.index !== index) {
      if (!change.field || column.field !== change.field) return column;
      const { field: _f, unit: _u, ...rest } = column;
      return rest;
    }
    const { unknownUnit: _told, assumed: _taken, told: _said, ...rest } = column;
    // A column chosen by hand has no confirmed unit yet: it is detected from the numbers.
    return change.field
      ? { ...rest, ...change, assumed: true as const }
      : { ...rest, ...change, told: true as const };
  });
}
