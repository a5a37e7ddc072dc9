import { whyFailed } from "./why-failed";

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
    const said = whyFailed(undefined, {
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

  test("names the unit test that failed, and the file that does not load", () => {
    const said = whyFailed(
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
    expect(whyFailed(undefined, undefined)).toEqual([]);
  });
});
