import { airworthinessSnapshot, judgeAirworthiness } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { calculated } from "@cravix/core/airworthiness/due/problem-of";
import type { Tx } from "../db/database";
import { readAirworthiness } from "./read-airworthiness";

/** Due items of an aircraft that cannot be calculated from what is on record, by id, each with its reason. */
export async function recordProblems(
  tx: Tx,
  groupId: string,
  registration: string,
  now: Date,
): Promise<Map<string, string>> {
  const onFile = await readAirworthiness(tx, registration, groupId, { now, days: false });
  if (!onFile) return new Map();
  const judged = calculated(() =>
    judgeAirworthiness(airworthinessSnapshot(onFile.record, onFile), {
      at: now.toISOString(),
      minutes: 0,
      landings: 0,
      conditions: [],
    }),
  );
  if ("problem" in judged) return new Map([["", judged.problem]]);
  return new Map(
    judged.value.flatMap(({ item, verdict }) =>
      verdict.problem === undefined ? [] : [[item.id, `${item.name}: ${verdict.problem}`] as const],
    ),
  );
}

/** The first problem that was not there before; undefined if there is none. */
export function newProblem(
  before: ReadonlyMap<string, string>,
  after: ReadonlyMap<string, string>,
): string | undefined {
  return [...after].find(([item]) => !before.has(item))?.[1];
}
