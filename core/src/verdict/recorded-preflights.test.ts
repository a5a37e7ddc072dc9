import { readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import {
  type ComposedList,
  capital,
  chanceWords,
  computeVerdict,
  foldPreflight,
  type PreflightEvent,
  type PreflightState,
  toLog,
  type VerdictResult,
} from "../index";
import { upgradeEvent, upgradeFile } from "../legacy-vocabulary";

/**
 * Walks of all six types of the demo, as they were recorded (26 November 2026) with the verdict of that day: answered by dice, a third of them well,
 * a third with some, a third with much out of order. Whatever changes here is a change of judgement, and is meant. They were recorded before words
 * were changed: lists, events and sentences are read in today's.
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
  gunzipSync(readFileSync(join(__dirname, "../testing/recorded-preflights.json.gz"))).toString(),
);

/** What was said of these walks, in the words of today. */
const inTodaysWords = (verdict: Recorded["walks"][number]["verdict"]) =>
  JSON.parse(
    JSON.stringify(verdict)
      .replace(/"id":"fuel\.witnesses/g, '"id":"fuel.sources')
      .replace(/"id":"habit\./g, '"id":"baseline.')
      .replaceAll('"fuel.witnesses', '"fuel.sources')
      .replaceAll("Climb indicator", "VSI")
      .replaceAll("Navigation receivers", "VOR 1 and 2")
      .replace(/\b(\d+) % likely\./g, (_, percent) => `${capital(chanceWords(Number(percent) / 100))}.`)
      .replace(/\bstick\b/g, "dipstick")
      .replace(/\bStick\b(?! to all)/g, "Dipstick"),
  );

/** Who judges since: the two engines of a twin against each other. Nothing else of a recorded walk may have changed. */
const isLater = (id: string | undefined) => id?.startsWith("sides.") === true;

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

test("there are walks of all six types, of every verdict", () => {
  const registrations = new Set(Object.values(recorded.lists).map((list) => list.registration));
  expect(registrations.size).toBe(6);
  const verdicts = new Set(recorded.walks.map((walk) => walk.verdict.verdict));
  expect([...verdicts].sort()).toEqual(expect.arrayContaining(["ask first", "stop"]));
});

test.each(
  recorded.walks.map((walk) => [walk.name, walk] as const),
)("%s: the same verdict as recorded", (_name, walk) => {
  const list = upgradeFile(recorded.lists[walk.listHash]) as ComposedList | undefined;
  if (!list) throw new Error("its list was not recorded");
  const state = foldPreflight("walk", eventsOf(walk));
  expect(summary(list, state, computeVerdict(list, state))).toEqual(inTodaysWords(walk.verdict));
});
