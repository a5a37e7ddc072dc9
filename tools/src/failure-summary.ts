import { existsSync, readFileSync } from "node:fs";
import { stripVTControlCharacters } from "node:util";

/** Part of Jest's `--json` report that is used. */
export interface JestReport {
  numPassedTests: number;
  numFailedTests: number;
  numFailedTestSuites: number;
  testResults?: {
    name: string;
    message?: string;
    assertionResults?: { fullName: string; status: string; failureMessages?: string[] | null }[];
  }[];
}

/** Part of Playwright's JSON report that is used. */
export interface BrowserReport {
  stats: { expected: number; unexpected: number; flaky: number };
  suites?: Suite[];
}
interface Suite {
  suites?: Suite[];
  specs?: {
    title: string;
    file: string;
    line: number;
    ok: boolean;
    tests: { results: Result[] }[];
  }[];
}

interface Result {
  duration: number;
  errors?: { message?: string }[];
  attachments?: { name: string; path?: string }[];
}

const MAX_LINES = 30;
const shortened = (text: string) =>
  stripVTControlCharacters(text).trim().split("\n").slice(0, MAX_LINES).join("\n");

/** Page snapshot of a failed test, which shows what appeared instead. */
function pageOf({ attachments = [] }: Result, read: (path: string) => string): string[] {
  const path = attachments.find(({ name }) => name === "error-context")?.path;
  if (!path) return [];
  const seen = /```yaml\n([\s\S]*?)```/.exec(read(path))?.[1];
  return seen ? [`page content:\n${shortened(seen)}`] : [];
}

/** Name and first message of each failed test: the output of parallel runs ends with those that passed. */
export function failureSummary(
  jest: JestReport | undefined,
  browser: BrowserReport | undefined,
  read: (path: string) => string = readIfThere,
): string[] {
  const units = (jest?.testResults ?? []).flatMap(({ name, message, assertionResults = [] }) => {
    const bad = assertionResults.filter(({ status }) => status === "failed");
    // A file that does not load has no failed test.
    if (bad.length === 0) return message ? [`✗ ${name}\n${shortened(message)}`] : [];
    return bad.map(
      ({ fullName, failureMessages }) =>
        `✗ ${name} › ${fullName}\n${shortened(failureMessages?.join("\n") ?? "")}`,
    );
  });
  const specs = (browser?.suites ?? []).flatMap(specsOf).filter(({ ok }) => !ok);
  return [
    ...units,
    ...specs.map(({ file, line, title, tests }) => {
      const results = tests.flatMap(({ results }) => results);
      const said = results.flatMap(({ errors = [] }) => errors.map(({ message = "" }) => shortened(message)));
      const seconds = results.reduce((sum, { duration }) => sum + duration, 0) / 1000;
      return `✗ ${file}:${line} › ${title}, ${seconds.toFixed(0)} s\n${[...said, ...results.flatMap((result) => pageOf(result, read))].join("\n")}`;
    }),
  ];
}

const readIfThere = (path: string) => (existsSync(path) ? readFileSync(path, "utf8") : "");

const specsOf = ({ suites = [], specs = [] }: Suite): NonNullable<Suite["specs"]> => [
  ...specs,
  ...suites.flatMap(specsOf),
];
