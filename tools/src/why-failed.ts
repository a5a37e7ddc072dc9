import { stripVTControlCharacters } from "node:util";

/** What is read of a report by Jest, as its `--json` writes it. */
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

/** What is read of a report by Playwright, as its JSON reporter writes it. */
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
    tests: { results: { duration: number; errors?: { message?: string }[] }[] }[];
  }[];
}

const MOST_LINES = 30;
const shortened = (text: string) =>
  stripVTControlCharacters(text).trim().split("\n").slice(0, MOST_LINES).join("\n");

/** Of each test that failed, which it was and what it said first: the last lines of a run by four hands are of those that went well. */
export function whyFailed(jest: JestReport | undefined, browser: BrowserReport | undefined): string[] {
  const units = (jest?.testResults ?? []).flatMap(({ name, message, assertionResults = [] }) => {
    const bad = assertionResults.filter(({ status }) => status === "failed");
    // A file that does not even load has no test that failed.
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
      return `✗ ${file}:${line} › ${title}, ${seconds.toFixed(0)} s\n${said.join("\n")}`;
    }),
  ];
}

const specsOf = ({ suites = [], specs = [] }: Suite): NonNullable<Suite["specs"]> => [
  ...specs,
  ...suites.flatMap(specsOf),
];
