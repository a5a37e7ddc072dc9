import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import {
  type ComposedList,
  computeVerdict,
  foldPreflight,
  type PreflightEvent,
  type PreflightState,
  toLog,
  type VerdictResult,
} from "../index";

/**
 * Walks of all six types of the demo, as they were recorded (26 November 2026) with the verdict of that day: answered by dice, a third of them well,
 * a third with some, a third with much out of order. Whatever changes here is a change of judgement, and is meant.
 */
interface Recorded {
  lists: Record<string, ComposedList>;
  walks: {
    name: string;
    listHash: string;
    /** Of the first event; the others follow each five seconds. */
    from: number;
    events: [type: string, data: object][];
    verdict: ReturnType<typeof summary>;
  }[];
}

const recorded: Recorded = JSON.parse(
  gunzipSync(readFileSync(join(__dirname, "../testing/recorded-walks.json.gz"))).toString(),
);

function summary(list: ComposedList, state: PreflightState, result: VerdictResult) {
  const { verdict, reasons, sound, unanswered, outstanding } = result;
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
    sound: sound.map(({ id, sentence }) => ({ id, sentence })),
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
      ({
        id: `e${String(i).padStart(4, "0")}`,
        type,
        preflightId: "walk",
        deviceId: "device",
        crewId: "ines",
        at: new Date(from + (i + 1) * 5000).toISOString(),
        data,
      }) as PreflightEvent,
  );

test("there are walks of all six types, of every verdict", () => {
  const registrations = new Set(Object.values(recorded.lists).map((list) => list.registration));
  expect(registrations.size).toBe(6);
  const verdicts = new Set(recorded.walks.map((walk) => walk.verdict.verdict));
  expect([...verdicts].sort()).toEqual(expect.arrayContaining(["ask first", "stop"]));
});

test.each(
  recorded.walks.map((walk) => [walk.name, walk] as const),
)("%s: the same verdict as recorded", (_name, walk) => {
  const list = recorded.lists[walk.listHash];
  if (!list) throw new Error("its list was not recorded");
  const state = foldPreflight("walk", eventsOf(walk));
  expect(summary(list, state, computeVerdict(list, state))).toEqual(walk.verdict);
});
