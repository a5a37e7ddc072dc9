import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightEvent } from "../checklist/stream/events";
import { foldPreflight } from "../checklist/stream/fold-preflight";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { upgradeEvent, upgradeFile } from "../legacy-vocabulary";
import { toLog } from "./to-log";
import { computeVerdict, type VerdictResult } from "./verdict";

/**
 * Random preflights of all six demo types, recorded on 26 November 2026: a third mostly in order, a third with some problems, a third with
 * many. Events and lists keep the vocabulary of that day and are upgraded when read; sentences are those of today. A difference is a change
 * of judgement and must be intended.
 */
interface Recorded {
  lists: Record<string, ComposedList>;
  walks: {
    name: string;
    listHash: string;
    /** Time of the first event; the others follow at five-second intervals. */
    from: number;
    events: [type: string, data: object][];
    verdict: ReturnType<typeof summary>;
  }[];
}

const recorded: Recorded = JSON.parse(
  gunzipSync(readFileSync(join(__dirname, "../testing/recorded-preflights.json.gz"))).toString(),
);

/** Judges added since the recording; nothing else may differ. */
const isLater = (id: string | undefined) => /^(sides\.|unknown\.|light$|weather\.wind$)/.test(id ?? "");

function summary(list: ComposedList, state: PreflightState, result: VerdictResult) {
  const { verdict, unanswered, outstanding } = result;
  const reasons = result.reasons.filter(({ judgement }) => !isLater(judgement?.id));
  const withinLimits = result.withinLimits.filter(({ id }) => !isLater(id));
  return {
    verdict: verdict ?? null,
    reasons: reasons.map(({ grade, text, stationId, itemId, judgement, evidence }) => ({
      grade,
      text,
      ...(stationId && { stationId }),
      ...(itemId && { itemId }),
      ...(judgement && { id: judgement.id }),
      ...(evidence && { evidence: evidence.map((one) => one.id) }),
    })),
    sound: withinLimits.map(({ id, sentence }) => ({ id, sentence })),
    unanswered: unanswered.map((item) => item.id),
    outstanding: outstanding.length,
    toLog: toLog(list, state, reasons).map(({ data }) =>
      "grade" in data
        ? { cause: data.cause, grade: data.grade, text: data.text }
        : { discrepancyId: data.discrepancyId },
    ),
  };
}

const eventsOf = ({ from, events }: Recorded["walks"][number]) =>
  events.map(
    ([type, data], i) =>
      upgradeEvent({
        id: `e${String(i).padStart(4, "0")}`,
        type,
        preflightId: "walk",
        deviceId: "device",
        crewId: "ines",
        at: new Date(from + (i + 1) * 5000).toISOString(),
        data,
      }) as PreflightEvent,
  );

test("there are preflights of all six types and with every verdict", () => {
  const registrations = new Set(Object.values(recorded.lists).map((list) => list.registration));
  expect(registrations.size).toBe(6);
  const verdicts = new Set(recorded.walks.map((preflight) => preflight.verdict.verdict));
  expect([...verdicts].sort()).toEqual(expect.arrayContaining(["ask first", "stop"]));
});

test.each(
  recorded.walks.map((preflight) => [preflight.name, preflight] as const),
)("%s: the same verdict as recorded", (_name, preflight) => {
  const list = upgradeFile(recorded.lists[preflight.listHash]) as ComposedList | undefined;
  if (!list) throw new Error("its list was not recorded");
  const state = foldPreflight("walk", eventsOf(preflight));
  expect(summary(list, state, computeVerdict(list, state))).toEqual(preflight.verdict);
});
