import { CHANNEL_UNITS, type Channel, rowsOf, type Trace } from "@cravix/core/run-up";
import Papa from "papaparse";
import type { CsvFault } from "../api/api-types";
import { toCsv } from "./to-csv";
import { guessColumns, isUnitsRow, kindOf, type TraceColumn, toOwnUnit, withUnitsRow } from "./trace-columns";
import { settleUnits, type UnitQuestion } from "./trace-units";

/** Result of reading an engine monitor file. */
export interface TraceReading {
  trace: Trace;
  columns: TraceColumn[];
  /** By line and column; repeated faults of a column are reported once, with their number. */
  faults: CsvFault[];
  lines: number;
  /** Units the user must choose. */
  questions: UnitQuestion[];
  /** Set if the rest of a longer file was not read. */
  stoppedAfterS?: number;
}

/** Seconds after the engine first turned: later data of a long file is the flight. */
const READ_S = 3600;
/** Maximum lines kept, whatever their times. */
const MAX_LINES = 80_000;
/** Lines without a usable time after which reading stops. */
const MAX_WITHOUT_TIME = 20_000;
/** Bytes read before a file is reported as unreadable. */
const FIRST_LOOK = 1 << 16;
const PIECE = 1 << 20;
/** Number of chunks after which a line counts as an unclosed quotation. */
const MAX_PIECES_OF_A_LINE = 4;
/** Maximum lines above the header, such as the monitor's name and date. */
const MAX_ABOVE = 20;
/** Maximum distance of a units line below the names. */
const MAX_BELOW = 3;

/** Reads a monitor file line by line, keeping only numbers, so that a file of any size can be read. */
export class TraceCsvReader {
  columns: TraceColumn[] | undefined;
  private readonly given: readonly TraceColumn[] | undefined;
  private readonly t: number[] = [];
  private readonly values = new Map<Channel, number[]>();
  private readonly counted = new Map<string, CsvFault & { times: number }>();
  private line = 0;
  private headLine = 0;
  private readonly above: string[][] = [];
  private turnedAt: number | undefined;
  private dayStart = 0;
  private lastClock = Number.NEGATIVE_INFINITY;
  private comma = false;
  full = false;

  /** `columns` is a mapping made by hand; default: guessed from headers. */
  constructor(columns?: readonly TraceColumn[]) {
    this.given = columns;
  }

  /** Reads one line. `decimalComma` for files separated by semicolons. */
  push(cells: readonly string[], decimalComma = false): void {
    this.line++;
    this.comma = decimalComma;
    if (!this.columns) {
      this.head(cells);
      this.headLine = this.line;
      return;
    }
    if (this.full || cells.every((cell) => cell.trim() === "")) return;
    if (this.t.length === 0 && this.line <= this.headLine + MAX_BELOW && isUnitsRow(cells)) {
      // A mapping made by hand takes precedence.
      if (!this.given) this.columns = withUnitsRow(this.columns, cells);
      return;
    }
    const time = this.columns.find((column) => column.field === "time");
    const at = time && this.time(cells[time.index] ?? "", time);
    if (at === undefined) {
      if (this.t.length === 0 && this.line > MAX_WITHOUT_TIME) this.full = true;
      return;
    }
    const row = this.t.length;
    this.t.push(at);
    for (const column of this.columns) {
      if (!column.field || column.field === "time" || !column.unit) continue;
      const cell = (cells[column.index] ?? "").trim();
      if (cell === "") continue;
      const number = Number(this.comma ? cell.replace(",", ".") : cell);
      if (!Number.isFinite(number)) {
        this.fault(column.header, "a number");
        continue;
      }
      let values = this.values.get(column.field);
      if (!values) {
        values = [];
        this.values.set(column.field, values);
      }
      while (values.length < row) values.push(Number.NaN);
      values[row] = toOwnUnit(column.field, column.unit, number);
      if (column.field === "rpm" && number > 300) this.turnedAt ??= at;
    }
    const since = this.turnedAt === undefined ? 0 : at - this.turnedAt;
    if (since > READ_S || this.t.length >= MAX_LINES) this.full = true;
  }

  finish(): TraceReading {
    const n = this.t.length;
    const channels: Trace["channels"] = {};
    for (const [channel, values] of this.values) {
      while (values.length < n) values.push(Number.NaN);
      channels[channel] = Float64Array.from(values);
    }
    const columns = (this.columns ?? []).map((column) => ({ ...column }));
    const questions = settleUnits(columns, channels);
    const faults: CsvFault[] = [...this.counted.values()].map(({ times, ...fault }) => ({
      ...fault,
      expected: times > 1 ? `${fault.expected}; on ${times} lines` : fault.expected,
    }));
    for (const { header, unknownUnit, field } of columns)
      if (unknownUnit && field)
        faults.push({
          row: 1,
          column: header,
          expected: `a known unit; "${unknownUnit}" is unknown, choose the unit for this column`,
        });
    if (this.columns && !columns.some(({ field, unit }) => field === "rpm" && unit))
      faults.push({ row: 1, column: "rpm", expected: "a column with the rpm; choose which one it is" });
    if (!this.columns)
      faults.push({
        row: 1,
        column: "",
        expected: "a header line with the column names, including the time",
      });
    const first = this.t[0] ?? 0;
    return {
      trace: { t: Float64Array.from(this.t, (at) => at - first), channels },
      columns,
      faults,
      lines: n,
      questions,
      ...(this.full && n > 0 && { stoppedAfterS: (this.t.at(-1) ?? 0) - first }),
    };
  }

  /** Column names may follow some lines about the monitor. */
  private head(cells: readonly string[]): void {
    if (this.given) {
      const rest = this.given.filter((column) => (cells[column.index] ?? "").trim() === column.header.trim());
      if (rest.length === this.given.length) this.columns = [...this.given];
      else if (this.line > MAX_ABOVE) this.columns = [...this.given];
      return;
    }
    const guessed = guessColumns(cells.map((cell) => cell.trim()));
    const known = guessed.filter((column) => column.field);
    if (known.some((column) => column.field === "time") && known.length >= 2) {
      const units = this.above.at(-1);
      this.columns = units && isUnitsRow(units) ? withUnitsRow(guessed, units) : guessed;
    } else {
      this.above.push([...cells]);
      if (this.line >= MAX_ABOVE) {
        const widest = this.above.reduce((a, b) => (b.length > a.length ? b : a));
        this.columns = guessColumns(widest.map((cell) => cell.trim()));
      }
    }
  }

  private time(cell: string, { header, unit }: TraceColumn): number | undefined {
    const text = cell.trim();
    const clock = /(\d{1,2}):(\d{2}):(\d{2}(?:[.,]\d+)?)/.exec(text);
    if (clock) {
      const seconds = Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3]?.replace(",", "."));
      // Past midnight the clock restarts; a small step back is a line out of order.
      if (seconds < this.lastClock - 43_200) this.dayStart += 86_400;
      this.lastClock = seconds;
      return this.dayStart + seconds;
    }
    const number = text === "" ? Number.NaN : Number(this.comma ? text.replace(",", ".") : text);
    if (Number.isFinite(number)) return unit === "ms" ? number / 1000 : number;
    this.fault(header, "a time in seconds, or as hours:minutes:seconds");
    return undefined;
  }

  /** Reports a fault of the file at the last line read. */
  tell(expected: string): void {
    this.fault("", expected);
  }

  private fault(column: string, expected: string): void {
    const key = `${column}|${expected}`;
    const known = this.counted.get(key);
    if (known) known.times++;
    else this.counted.set(key, { row: this.line, column, expected, times: 1 });
  }
}

/**
 * Reads an engine monitor file from text. Never throws: valid data is used, and every fault has its line and column. For large
 * files push lines to `TraceCsvReader`.
 */
export function readTraceCsv(text: string, columns?: readonly TraceColumn[]): TraceReading {
  const reader = new TraceCsvReader(columns);
  Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    step: ({ data, meta }, parser) => {
      reader.push(data, meta.delimiter === ";");
      if (reader.full) parser.abort();
    },
  });
  return reader.finish();
}

/** Reads a file of any size in chunks of a megabyte, until the run-up's hour is over. Browser only. */
export async function readTraceBlob(file: Blob, columns?: readonly TraceColumn[]): Promise<TraceReading> {
  const reader = new TraceCsvReader(columns);
  const head = await file.slice(0, FIRST_LOOK).text();
  if (head.includes("\u0000") || (file.size > FIRST_LOOK && !/[\r\n]/.test(head))) {
    reader.tell("a text file; this one is not");
    return reader.finish();
  }
  return new Promise((resolve, reject) => {
    let withoutLine = 0;
    Papa.parse<string[], File>(file as File, {
      skipEmptyLines: "greedy",
      chunkSize: PIECE,
      chunk: ({ data, meta }, parser) => {
        for (const row of data) {
          reader.push(row, meta.delimiter === ";");
          if (reader.full) break;
        }
        withoutLine = data.length > 0 ? 0 : withoutLine + 1;
        if (withoutLine >= MAX_PIECES_OF_A_LINE)
          reader.tell("a closing quotation mark; it is missing here, and the rest of the file was not read");
        if (reader.full || withoutLine >= MAX_PIECES_OF_A_LINE) parser.abort();
      },
      complete: () => resolve(reader.finish()),
      error: reject,
    });
  });
}

/** A trace as CSV with the documented columns: time in seconds, then each channel with its unit. */
export function traceCsv({ t, channels }: Trace): string {
  const rows = rowsOf(channels);
  const fields = [
    "time (s)",
    ...rows.map(([channel]) => `${ownHeader(channel)} (${CHANNEL_UNITS[kindOf(channel)]})`),
  ];
  const data = Array.from(t, (at, i) => [
    at,
    ...rows.map(([, values]) => (Number.isNaN(values[i]) ? "" : values[i])),
  ]);
  return toCsv(fields, data);
}

const OWN: Record<string, string> = {
  fuelFlow: "fuel flow",
  oilPressure: "oil pressure",
  oilTemperature: "oil temperature",
  map: "manifold pressure",
};

function ownHeader(channel: Channel): string {
  const cylinder = /^(egt|cht)(\d+)$/.exec(channel);
  return cylinder ? `${cylinder[1]} ${cylinder[2]}` : (OWN[channel] ?? channel);
}
