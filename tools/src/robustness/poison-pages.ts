import { type AircraftBundle, contentHash, type Fleet, listMarkdown } from "@cravix/contract";
import { readList } from "@cravix/contract/files";
import { listCsv } from "@cravix/contract/logs";
import {
  airworthinessSnapshot,
  judgeAirworthiness,
  metersOfSnapshot,
} from "@cravix/core/airworthiness/airworthiness-snapshot";
import { localDate } from "@cravix/core/airworthiness/calendar/local-date";
import { dueJudgement, isSoon } from "@cravix/core/airworthiness/due/due-judgement";
import { judgePerson, type PersonRecord, personSentence } from "@cravix/core/airworthiness/people/person-due";
import { planVisits } from "@cravix/core/airworthiness/plan/plan-visits";
import { usualOf, visitItem, whenDue } from "@cravix/core/airworthiness/plan/when-due";
import { workshopFrom } from "@cravix/core/airworthiness/plan/workshop-plan";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import { emptyState } from "@cravix/core/checklist/stream/preflight-state";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import { crew } from "@cravix/demo";

/** What to read: everything, or what concerns one aircraft. */
export interface PoisonScope {
  registration?: string;
  releases: readonly string[];
}

const MAX_MS = 40_000;

/** Asks every address that somebody reads, and calculates every page that is calculated on the device. */
export async function pageTroubles(url: string, { registration, releases }: PoisonScope) {
  const troubles: string[] = [];
  let reads = 0;
  const ask = (path: string, init: RequestInit) =>
    fetch(`${url}/api/v1${path}`, {
      headers: { "cravix-crew": "maren" },
      signal: AbortSignal.timeout(MAX_MS),
      ...init,
    });
  const get = async (path: string, init: RequestInit = {}): Promise<Response | undefined> => {
    reads++;
    try {
      // An idle connection that the server closes just then gives no answer: asked once more, as a browser does.
      const answer = await ask(path, init).catch(() => ask(path, init));
      if (answer.status >= 500 || (answer.status >= 400 && !init.method))
        troubles.push(`${path}: ${answer.status} ${(await answer.clone().text()).slice(0, 200)}`);
      return answer;
    } catch (error) {
      troubles.push(`${path}: ${(error as Error).message}`);
      return undefined;
    }
  };
  const calculate = (what: string, work: () => void) => {
    try {
      work();
    } catch (error) {
      troubles.push(`${what}: ${(error as Error).stack?.slice(0, 400)}`);
    }
  };
  const fleet = (await (await get("/aircraft"))?.json()) as Fleet | undefined;
  await get("/discrepancies?state=all");
  await get("/workshop");
  const all = fleet?.aircraft.map((one) => one.registration) ?? [];
  const bundles: AircraftBundle[] = [];
  // An empty registration: only what concerns everybody.
  const asked = registration === undefined ? all : all.filter((one) => one === registration);
  for (const one of asked) {
    for (const path of [
      "",
      "/discrepancies?state=all",
      "/flights",
      "/flights.csv",
      "/releases",
      "/fuel-log",
      "/oil-log",
    ]) {
      const answer = await get(
        `/aircraft/${one}${path}`,
        path === "/flights" || path === "/flights.csv" ? { method: "GET" } : {},
      );
      if (path === "" && answer?.ok) bundles.push((await answer.json()) as AircraftBundle);
    }
    if (registration === undefined)
      for (const path of ["/flights.pdf", "/fuel-log.csv", "/oil-log.csv"])
        await get(`/aircraft/${one}${path}`, { method: "GET" });
  }
  for (const id of releases) await get(`/releases/${id}/paper.pdf`);
  for (const bundle of bundles) {
    const list = calculateAircraft(bundle, calculate);
    if (list) await checkList(list, registration === undefined, get, troubles);
  }
  if (registration !== undefined) return { reads, troubles };
  calculate("workshop visits", () => planAll(bundles));
  for (const path of ["/preflights?limit=100", "/workshop/plan.csv", "/workshop/plan.ics", "/health"])
    await get(path, { method: "GET" });
  for (const { id } of crew.members) {
    const answer = await get(`/people/${id}/due`, { headers: { "cravix-crew": id } });
    if (answer?.ok) {
      const record = (await answer.json()) as PersonRecord;
      calculate(`due items of ${id}`, () => {
        const today = localDate(new Date().toISOString());
        for (const judged of judgePerson(record, { today, ends: today, kinds: ["day", "passengers"] }))
          personSentence(judged);
      });
    }
  }
  return { reads, troubles };
}

type Calculate = (what: string, work: () => void) => void;

/** Start page, due page, today's checklist and its judgement, as the device calculates them. */
function calculateAircraft(bundle: AircraftBundle, calculate: Calculate): ComposedList | undefined {
  const { registration } = bundle.aircraft;
  const at = new Date().toISOString();
  const asked = { at, minutes: 60, landings: 1, conditions: ["night" as const] };
  const { papers } = bundle;
  calculate(`due page of ${registration}`, () => {
    if (!papers) return;
    const pinned = airworthinessSnapshot(papers.record, papers);
    const meters = metersOfSnapshot(pinned);
    const today = localDate(at, papers.record.timeZone);
    const usual = usualOf(papers.days, papers.record.meters, today);
    for (const { item, verdict } of judgeAirworthiness(pinned, asked)) {
      dueJudgement(item, verdict, meters);
      isSoon(verdict);
      whenDue(verdict.limits, usual, today);
      visitItem(item, verdict.limits, usual, today);
    }
  });
  let list: ComposedList | undefined;
  if (bundle.type.stub) return undefined;
  calculate(`checklist of ${registration}`, () => {
    list = composeList({
      type: bundle.type,
      aircraft: bundle.aircraft,
      conditions: (["first of the day", "night"] as const).filter(
        (one) => !bundle.type.notOffered?.some(({ condition }) => condition === one),
      ),
      openDiscrepancies: bundle.openDiscrepancies,
      ...(bundle.airfield && { airfield: bundle.airfield }),
      ...(bundle.rules && { rules: bundle.rules }),
      ...(papers && { papers: airworthinessSnapshot(papers.record, { ...papers, daily: null }) }),
      ...(bundle.loading && { loading: bundle.loading }),
      ...(bundle.equipment && { equipment: bundle.equipment }),
    });
    listCsv(list);
    listMarkdown(list);
    judgePreflight(list, emptyState("0198a000-0000-7000-8000-000000000000"));
  });
  return list;
}

/** What is composed must be accepted: otherwise every preflight with it would be refused. */
async function checkList(
  list: ComposedList,
  send: boolean,
  get: (path: string, init?: RequestInit) => Promise<Response | undefined>,
  troubles: string[],
): Promise<void> {
  const text = JSON.stringify(list);
  const value = JSON.parse(text) as unknown;
  const reading = readList(value);
  if ("faults" in reading) {
    troubles.push(`list of ${list.registration}: ${JSON.stringify(reading.faults.slice(0, 3))}`);
    return;
  }
  if (!send) return;
  const headers = { "content-type": "application/json", "cravix-crew": "maren" };
  const answer = await get(`/lists/${contentHash(value)}`, { method: "PUT", headers, body: text });
  if (answer && answer.status !== 204) troubles.push(`PUT list of ${list.registration}: ${answer.status}`);
}

function planAll(bundles: readonly AircraftBundle[]): void {
  const at = new Date().toISOString();
  const today = localDate(at);
  const { open } = workshopFrom(today, 365, []);
  for (const { papers } of bundles) {
    if (!papers) continue;
    const usual = usualOf(papers.days, papers.record.meters, today);
    const items = judgeAirworthiness(airworthinessSnapshot(papers.record, papers), {
      at,
      minutes: 0,
      landings: 0,
      conditions: ["instrument"],
    }).flatMap(({ item, verdict }) => visitItem(item, verdict.limits, usual, today) ?? []);
    planVisits(items, { horizon: 365, open });
  }
}
