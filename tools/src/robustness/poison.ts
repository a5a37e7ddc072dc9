import { deedOf, EVENT_DATA, newId, rolesThatCan } from "@cravix/contract";
import { readFile } from "@cravix/contract/files";
import {
  EVENT_TYPES,
  type PreflightEvent,
  STREAM_EVENTS,
  type StreamKind,
} from "@cravix/core/checklist/stream/events";
import { seededRandom } from "@cravix/core/units/seeded-random";
import { airworthinessFiles, crew, loadingFiles, scenarioFiles } from "@cravix/demo";
import { object } from "yup";
import type { Random } from "./make-walks";
import { pageTroubles } from "./poison-pages";
import { type Names, objectFor } from "./poison-values";
import { ServerProcess } from "./server-process";

export interface PoisonOutcome {
  events: number;
  files: number;
  taken: number;
  /** Accepted events by kind: a kind that is never accepted tests nothing. */
  byKind: Record<string, number>;
  refused: number;
  reads: number;
  /** Reads that failed, or an event that was not answered. */
  troubles: string[];
}

const pickOf = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
const KINDS: readonly StreamKind[] = ["preflight", "aircraft", "flight", "person", "workshop"];
const SCHEMAS = new Map(EVENT_TYPES.map((type) => [type, object(EVENT_DATA[type]).describe()]));
/** Kinds that change what others read, more often than answers of a preflight. */
const OFTEN = EVENT_TYPES.filter((type) => !STREAM_EVENTS.preflight.includes(type));

/** The record as the attacker knows it. */
class Known {
  readonly ids: string[] = [];
  readonly discrepancies: string[] = [];
  readonly flights: { id: string; streamId: string }[] = [];
  readonly releases: string[] = [];
  readonly streams = new Map<StreamKind, string[]>();

  names(): Names {
    const items = airworthinessFiles(new Date()).flatMap((file) =>
      "items" in file ? (file.items as { id: string }[]).map(({ id }) => id) : [],
    );
    const other = newId(Date.now());
    return {
      registration: ["QX-TAR", "QX-HLD", "QX-COR", "QX-ANS", "QX-LUM", "QX-DOV"],
      crewId: crew.members.map(({ id }) => id),
      personId: crew.members.map(({ id }) => id),
      byCrewId: crew.members.map(({ id }) => id),
      pilot: crew.members.map(({ id }) => id),
      meter: ["hours", "landings", "cycles", "bananas", "tach"],
      component: ["engine", "propeller", "QX-TAR.engine", "nothing"],
      of: ["engine", "propeller", "nothing"],
      item: [...items, "medical", "review", "nothing"],
      id: [...this.ids.slice(-20), other, ...items.slice(0, 5)],
      discrepancyId: [...this.discrepancies.slice(-12), other],
      into: [...this.discrepancies.slice(-12), other],
      eventId: [...this.ids.slice(-20), other],
      closes: [...this.discrepancies.slice(-12), other],
      release: [...this.releases.slice(-5), other],
      rules: ["example", "nothing"],
      items: items.slice(0, 8),
    };
  }
}

function makeEvent(known: Known, random: Random, now: number): PreflightEvent {
  const type = random() < 0.7 ? pickOf(random, OFTEN) : pickOf(random, EVENT_TYPES);
  const kinds = KINDS.filter((kind) => STREAM_EVENTS[kind].includes(type));
  const stream = pickOf(random, kinds);
  const data = objectFor(SCHEMAS.get(type) as never, {
    random,
    names: known.names(),
    now,
  });
  const at = now - Math.floor(random() ** 4 * 300 * 86_400_000);
  // Some ids are of the future, as those of a device whose clock is fast.
  const id = newId(random() < 0.1 ? now + 86_400_000 * 365 * 20 : at);
  const before = known.streams.get(stream) ?? [];
  let streamId = before.length > 0 && random() < 0.4 ? pickOf(random, before) : id;
  if (type === "discrepancy.opened") data.discrepancyId = id;
  const flight = known.flights.at(-1);
  if (type === "flight.corrected" && flight && random() < 0.8) {
    streamId = flight.streamId;
    data.of = flight.id;
    const { line } = data as { line?: Record<string, unknown> };
    if (line) line.registration = data.registration;
  }
  const release = known.releases.at(-1);
  if (type === "release.withdrawn" && release !== undefined && random() < 0.8) data.of = release;
  if (random() < 0.7) makePlausible(type, data, new Date(at).toISOString().slice(0, 10));
  const event = {
    id,
    type,
    ...(stream !== "preflight" && { stream }),
    streamId,
    deviceId: newId(now),
    crewId: "kofi",
    at: new Date(at).toISOString(),
    data,
  } as PreflightEvent;
  return { ...event, crewId: authorOf(event, random) };
}

/** Fits what admission asks about, so that what remains strange is taken. */
function makePlausible(type: string, data: Record<string, unknown>, date: string): void {
  if (type === "work.released") {
    Object.assign(data, { date, readings: { hours: 1, landings: 1 }, preventive: undefined });
    data.works = (data.works as { date: string }[]).map((work) =>
      work.date > date ? { ...work, date } : work,
    );
    data.leaves = (data.leaves as { limits: { meter?: string }[] }[]).map((item) => ({
      ...item,
      limits: item.limits.map((limit) => (limit.meter ? { ...limit, meter: "hours" } : limit)),
    }));
    delete data.preventive;
  }
  if (type === "component.fitted" || type === "component.removed") data.totals = { hours: 1, landings: 1 };
  if (type === "component.fitted") {
    Object.assign(data.component as object, { sinceNew: { hours: 5 } });
    data.items = (data.items as { limits: { meter?: string }[] }[]).map((item) => ({
      ...item,
      limits: item.limits.map((limit) => (limit.meter ? { ...limit, meter: "hours" } : limit)),
    }));
    const ids = (data.items as { id: string }[]).map((item) => item.id);
    data.works = (data.works as { item: string }[]).filter(({ item }) => ids.includes(item));
  }
}

/** Usually somebody who may do it. */
function authorOf(event: PreflightEvent, random: Random): string {
  const roles = rolesThatCan(deedOf(event));
  const able = crew.members.filter(({ role }) => roles.includes(role));
  return random() < 0.9 && able.length > 0 ? pickOf(random, able).id : pickOf(random, crew.members).id;
}

/** A valid file of the demo with a few values replaced: bounds, missing parts, other names. */
function makeFile(random: Random, now: Date): object | undefined {
  const file = structuredClone(
    pickOf(random, [
      ...scenarioFiles,
      ...airworthinessFiles(now),
      ...airworthinessFiles(now),
      ...loadingFiles,
    ]),
  ) as object;
  for (let i = 0; i < 60; i++) {
    const changed = structuredClone(file);
    for (let n = 0; n < 1 + Math.floor(random() * 3); n++) disturb(changed, random);
    if (!("faults" in readFile(changed))) return changed;
  }
  return undefined;
}

function disturb(value: unknown, random: Random): void {
  if (typeof value !== "object" || value === null) return;
  const keys = Object.keys(value);
  if (keys.length === 0) return;
  const key = pickOf(random, keys);
  const own = value as Record<string, unknown>;
  const inner = own[key];
  if (typeof inner === "object" && inner !== null && random() < 0.85) disturb(inner, random);
  else if (Array.isArray(value)) value.splice(Number(key), 1);
  else if (typeof inner === "number") own[key] = pickOf(random, [0, 1, inner * 10, 1_000_000, inner + 0.1]);
  else if (typeof inner === "string") own[key] = pickOf(random, ["x", "hours", "2199-12-31", `${inner}x`]);
  else if (typeof inner === "boolean") own[key] = !inner;
  else delete own[key];
}

/**
 * Posts valid but strange events and files to the real server, in plausible order, and after each asks for everything that anybody
 * reads: nothing that is accepted may hurt a read. Deterministic per seed, apart from the day.
 */
export async function poison(count: number, seed: number): Promise<PoisonOutcome> {
  const server = new ServerProcess();
  await server.start();
  const random = seededRandom(seed);
  const known = new Known();
  const outcome: PoisonOutcome = {
    events: 0,
    files: 0,
    taken: 0,
    byKind: {},
    refused: 0,
    reads: 0,
    troubles: [],
  };
  const before = new Set<string>();
  try {
    while (outcome.events + outcome.files < count && outcome.troubles.length < 20) {
      const step = outcome.events + outcome.files;
      const last =
        random() < 0.12
          ? await postFile(server, random, outcome)
          : await postEvent(server, known, random, outcome);
      // What was not accepted changed nothing. Otherwise everything of the aircraft concerned, and at times everything of everybody.
      const whole = step % 40 === 39;
      if (last === undefined && !whole) continue;
      const { reads, troubles } = await pageTroubles(server.url, {
        ...(!whole && { registration: last ?? "" }),
        releases: known.releases.slice(-1),
      });
      outcome.reads += reads;
      for (const trouble of troubles) {
        // Each trouble once, with the step after which it began.
        if (before.has(trouble)) continue;
        before.add(trouble);
        outcome.troubles.push(`after ${step}: ${trouble}`);
      }
      if (!server.alive) outcome.troubles.push(`the server stopped: ${server.said.slice(-400)}`);
    }
  } finally {
    await server.remove();
  }
  return outcome;
}

async function postFile(
  server: ServerProcess,
  random: Random,
  outcome: PoisonOutcome,
): Promise<string | undefined> {
  outcome.files++;
  const file = makeFile(random, new Date());
  if (!file) return undefined;
  const answer = await post(server, "/files", file);
  if (answer.status >= 500)
    outcome.troubles.push(`POST /files: ${answer.status} ${JSON.stringify(file).slice(0, 300)}`);
  if (answer.status === 201) outcome.taken++;
  else outcome.refused++;
  return answer.status === 201 ? ((file as { registration?: string }).registration ?? "") : undefined;
}

async function postEvent(
  server: ServerProcess,
  known: Known,
  random: Random,
  outcome: PoisonOutcome,
): Promise<string | undefined> {
  outcome.events++;
  const event = makeEvent(known, random, Date.now());
  const answer = await post(server, "/events", { events: [event] });
  if (answer.status !== 200) {
    outcome.troubles.push(`POST /events: ${answer.status} ${JSON.stringify(event).slice(0, 600)}`);
    return undefined;
  }
  const { refused } = (await answer.json()) as { refused: { reason: string }[] };
  if (refused[0]) {
    outcome.refused++;
    if (refused[0].reason.includes("contradicts what is on record"))
      outcome.troubles.push(`an error of ours: ${JSON.stringify(event).slice(0, 900)}`);
    return undefined;
  }
  outcome.taken++;
  outcome.byKind[event.type] = (outcome.byKind[event.type] ?? 0) + 1;
  known.ids.push(event.id);
  const streams = known.streams.get(event.stream ?? "preflight") ?? [];
  if (!streams.includes(event.streamId)) streams.push(event.streamId);
  known.streams.set(event.stream ?? "preflight", streams);
  if (event.type === "discrepancy.opened") known.discrepancies.push(event.id);
  if (event.type === "flight.logged") known.flights.push(event);
  if (event.type === "work.released") known.releases.push(event.id);
  return (event.data as { registration?: string }).registration ?? "";
}

const post = (server: ServerProcess, path: string, body: object) =>
  fetch(`${server.url}/api/v1${path}`, {
    method: "POST",
    headers: { "content-type": "application/json", "cravix-crew": "yuki" },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(40_000),
  });
