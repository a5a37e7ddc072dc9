import { failureSummary } from "./failure-summary";

const STATS = { expected: 1, unexpected: 1, flaky: 0 };

describe("why a run failed", () => {
  test("names the browser test that failed, wherever it is nested, without colours, and none that went well", () => {
    const spec = (title: string, ok: boolean, message?: string) => ({
      title,
      ok,
      file: "a.spec.ts",
      line: 7,
      tests: [{ results: [{ duration: 61_000, errors: message ? [{ message }] : [] }] }],
    });
    const said = failureSummary(undefined, {
      stats: STATS,
      suites: [
        {
          specs: [spec("goes well", true)],
          suites: [{ specs: [spec("breaks", false, "\u001b[31mError\u001b[39m: 3 is not 4")] }],
        },
      ],
    });
    expect(said).toEqual(["✗ a.spec.ts:7 › breaks, 61 s\nError: 3 is not 4"]);
  });

  test("tells what stood on the page instead", () => {
    const [said] = failureSummary(
      undefined,
      {
        stats: STATS,
        suites: [
          {
            specs: [
              {
                title: "breaks",
                ok: false,
                file: "a.spec.ts",
                line: 7,
                tests: [
                  {
                    results: [
                      {
                        duration: 1000,
                        errors: [{ message: "no button" }],
                        attachments: [{ name: "screenshot" }, { name: "error-context", path: "a.md" }],
                      },
                    ],
                  },
                ],
              },
            ],
          },
        ],
      },
      (path) =>
        path === "a.md"
          ? '# Error\n\n# Page snapshot\n\n```yaml\n- heading "No network"\n```\n\n# Source'
          : "",
    );
    expect(said).toBe('✗ a.spec.ts:7 › breaks, 1 s\nno button\npage content:\n- heading "No network"');
  });

  test("names the unit test that failed, and the file that does not load", () => {
    const said = failureSummary(
      {
        numPassedTests: 1,
        numFailedTests: 1,
        numFailedTestSuites: 2,
        testResults: [
          {
            name: "a.test.ts",
            message: "all of it once more",
            assertionResults: [
              { fullName: "adds", status: "passed", failureMessages: [] },
              { fullName: "takes", status: "failed", failureMessages: ["no\n".repeat(80)] },
            ],
          },
          { name: "b.test.ts", message: "Cannot find module", assertionResults: [] },
          { name: "c.test.ts", message: "", assertionResults: [] },
        ],
      },
      undefined,
    );
    expect(said).toHaveLength(2);
    expect(said[0]).toMatch(/^✗ a\.test\.ts › takes\nno\n/);
    expect(said[0]?.split("\n").length).toBeLessThan(40);
    expect(said[1]).toBe("✗ b.test.ts\nCannot find module");
  });

  test("says nothing where there is no report", () => {
    expect(failureSummary(undefined, undefined)).toEqual([]);
  });
});
