import { execFileSync } from "node:child_process";
import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { pathToFileURL } from "node:url";
import type * as diagnosis from "@cravix/core/diagnosis";
import type * as runUp from "@cravix/core/run-up";
import { circumstances, type Judge } from "@cravix/core/testing/run-unseen-case";

/** Last commit before the reader was measured on unseen cases. */
const COMMIT = "356a117195e9";
const PLACE = ".cravix/first-reader";
/** The names of the baseline commit, where they differ from today's. */
type BaselineDiagnosis = Pick<typeof diagnosis, "observe" | "diagnose"> & {
  asFarAsProbed: typeof diagnosis.limitToProbes;
};
/** Size of the baseline source without tests. */
const MAX_BYTES = 64 << 20;

/**
 * Loads the first reader from the project's history as a baseline for the same cases in the same run. Undefined without history
 * (a source archive, a shallow clone). Written to a temporary folder, removed by `done`.
 */
export async function firstReader(): Promise<{ judge: Judge; done: () => void } | undefined> {
  const done = () => rmSync(PLACE, { recursive: true, force: true });
  done();
  let files: Buffer;
  try {
    files = execFileSync("git", ["archive", COMMIT, "core/src", ":(exclude)**/*.test.ts"], {
      maxBuffer: MAX_BYTES,
      stdio: ["ignore", "pipe", "ignore"],
    });
  } catch {
    return undefined;
  }
  mkdirSync(PLACE, { recursive: true });
  execFileSync("tar", ["-x", "-C", PLACE], { input: files });
  writeFileSync(`${PLACE}/package.json`, JSON.stringify({ type: "module" }));
  const load = async <T>(part: string): Promise<T> =>
    (await import(pathToFileURL(`${PLACE}/core/src/${part}/index.ts`).href)) as T;
  const { readRunUp } = await load<typeof runUp>("run-up");
  const { observe, diagnose, asFarAsProbed } = await load<BaselineDiagnosis>("diagnosis");
  const judge: Judge = (one, trace, _sides, told, marks) => {
    const { context, limits } = circumstances(one);
    const reading = readRunUp(trace, one.engine.profile, marks);
    const observations = [...observe(reading, one.engine.profile, limits), ...told];
    const { ranked, fits } = diagnose(observations, asFarAsProbed(context, reading));
    return { reading, observations, diagnosis: { ranked, fits, byRates: ranked, restsOnRates: false } };
  };
  return { judge, done };
}
