import { codeOf } from "../db/database-error";

/** Lines of a stack that are kept. */
const FRAMES = 12;

/**
 * What a log may hold of an error: its kind, code and place. Never its message, because those of the database and of parsers repeat
 * what was sent: answers, names, texts of files.
 */
export function errorFields(error: unknown): { kind: string; code: string; at: string[] } {
  const { name, stack } = error instanceof Error ? error : new Error("not an error");
  const at = (stack ?? "")
    .split("\n")
    .filter((line) => /^\s+at /.test(line))
    .slice(0, FRAMES)
    .map((line) => line.trim());
  return { kind: name, code: codeOf(error), at };
}
