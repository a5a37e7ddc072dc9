import { ReportError } from "../report";

/** Maximum length of a pasted text. */
const MAX_CHARACTERS = 8000;
/** Maximum length of one report; the longest forecasts have about 900 characters. */
const MAX_OF_ONE = 2000;

/** The groups of one METAR, SPECI or TAF, in capitals. */
export type ReportGroups = string[];

const STARTS = /^(METAR|SPECI|TAF)$/;
const TIME = /^\d{6}Z$/;
const STATION = /^[A-Z][A-Z0-9]{3}$/;
/** Groups that may stand between the kind of a report and its station. */
const BEFORE_STATION = /^(COR|AMD|RTD|TAF|METAR|SPECI)$/;

/**
 * Splits a pasted text into reports. A report ends with "=", or where the next begins: with its kind, or with a station and a time.
 * Every group belongs to exactly one report. Throws ReportError for an empty text, and for one of more than 8,000 characters.
 * Complexity: O(characters).
 */
export function splitReports(text: string): ReportGroups[] {
  if (text.trim() === "") throw new ReportError("Enter a METAR or TAF.");
  if (text.length > MAX_CHARACTERS) throw new ReportError("Too long. Enter fewer reports at a time.");
  const reports: ReportGroups[] = [];
  let report: ReportGroups = [];
  const close = () => {
    if (report.length > 0) reports.push(report);
    report = [];
  };
  const words = text.toUpperCase().replace(/=/g, " = ").split(/\s+/).filter(Boolean);
  for (const [i, word] of words.entries()) {
    if (word === "=" || (report.length > 0 && begins(words, i, report))) close();
    if (word !== "=") report.push(word);
  }
  close();
  if (reports.some((groups) => groups.join(" ").length > MAX_OF_ONE))
    throw new ReportError("Too long for one report. Check the text.");
  return reports;
}

/** True if another report begins at this word. */
function begins(words: readonly string[], i: number, report: readonly string[]): boolean {
  const word = words[i] as string;
  const header = report.every((group) => BEFORE_STATION.test(group));
  if (STARTS.test(word)) return !header;
  // A second station and time; a remark may name a time, but not after a station.
  return (
    !header && STATION.test(word) && TIME.test(words[i + 1] ?? "") && report.some((group) => TIME.test(group))
  );
}
