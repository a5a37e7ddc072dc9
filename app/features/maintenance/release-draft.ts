import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { JudgedDue } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { localDate } from "@cravix/core/airworthiness/calendar/local-date";
import type { DueItem, Purpose, WorkDone } from "@cravix/core/airworthiness/due/due-item";
import {
  missingReading,
  type ReleaseFault,
  readingNeeded,
  type WorkRelease,
} from "@cravix/core/airworthiness/life/release";
import { isCounted, readingFor } from "@cravix/core/airworthiness/meters/meter";
import { readTotals } from "@cravix/core/logs/apply-airworthiness-events";
import type { Airworthiness } from "../due";

/** What a release sets for one item: a new printed date or reading, and where that is written. */
export interface SetDraft {
  date?: string;
  reading?: string;
  source?: string;
}

/** A release as it is being entered. */
export interface ReleaseDraft {
  date: string;
  /** Confirmed: done before other work on record, entered late. */
  late: boolean;
  done: string;
  reference: string;
  readings: Record<string, string>;
  works: string[];
  sets: Record<string, SetDraft>;
  /** Purpose under which a limit was exceeded, by item. */
  under: Record<string, Purpose>;
  closes: string[];
  kind: string;
  number: string;
  leak: string;
}

/** An empty release: of today, hour meters as last logged, counters as they stand. */
export function newRelease({ onFile, today }: Airworthiness): ReleaseDraft {
  const { record, lastLine, totals } = onFile;
  const now = new Date().toISOString();
  const shown = (meter: RecordMeter) => {
    if (!isCounted(meter.kind)) return lastLine?.meters[meter.id]?.in;
    const total = totals[meter.id];
    return total === undefined ? undefined : readingFor(meter, total, now);
  };
  return {
    date: today,
    late: false,
    done: "",
    reference: "",
    readings: Object.fromEntries(record.meters.map((meter) => [meter.id, String(shown(meter) ?? "")])),
    works: [],
    sets: {},
    under: {},
    closes: [],
    kind: "",
    number: "",
    leak: "",
  };
}

/** Items that the chosen works complete as well. */
export function includedIn(items: readonly DueItem[], works: readonly string[]): DueItem[] {
  const found = new Set<string>();
  const open = [...works];
  for (let id = open.pop(); id !== undefined; id = open.pop())
    for (const next of items.find((item) => item.id === id)?.does ?? [])
      if (!found.has(next) && !works.includes(next)) {
        found.add(next);
        open.push(next);
      }
  return items.filter(({ id }) => found.has(id));
}

/** Meters to enter: every hour meter, and the counters by which a completed item counts. Sums are never entered. */
export function metersToEnter({ onFile }: Airworthiness, works: readonly string[]): RecordMeter[] {
  const { meters, items } = onFile.record;
  const done = [...items.filter(({ id }) => works.includes(id)), ...includedIn(items, works)];
  const named = new Set(
    done.flatMap(({ limits }) =>
      limits.flatMap((limit) =>
        limit.by === "meter" || limit.by === "reading"
          ? [limit.meter, ...(meters.find(({ id }) => id === limit.meter)?.sumOf ?? [])]
          : [],
      ),
    ),
  );
  return meters.filter(({ id, kind, sumOf }) => !sumOf && (!isCounted(kind) || named.has(id)));
}

/** What a completed item needs besides the work: a new printed date, a new reading. */
export const needsOf = ({ limits }: DueItem): { date: boolean; reading: boolean } => ({
  date: limits.some(({ by }) => by === "date"),
  reading: limits.some(({ by }) => by === "reading"),
});

/** Purposes under which the work may have been late, if the overrun then comes off the next interval. */
export function purposesOf({ item, verdict }: Pick<JudgedDue, "item" | "verdict">): Purpose[] {
  if (!verdict.limits.some(({ left }) => left < 0)) return [];
  const tolerances = item.limits.flatMap(({ tolerances: own = [] }) => own);
  return [...new Set(tolerances.flatMap(({ for: purpose }) => (purpose === "any flight" ? [] : [purpose])))];
}

const numberOf = (text: string): number => Number(text.replace(",", "."));

/** The readings entered for these meters; NaN for text that is no number. */
function readingsOf({ readings }: ReleaseDraft, meters: readonly RecordMeter[]): Record<string, number> {
  return Object.fromEntries(
    meters.flatMap(({ id }) => {
      const text = readings[id]?.trim() ?? "";
      return text === "" ? [] : [[id, numberOf(text)] as const];
    }),
  );
}

/** The release to sign. `unique` distinguishes two releases of one day. Dates are local days at the aircraft's base. */
export function releaseOf(
  draft: ReleaseDraft,
  papers: Airworthiness,
  { at, preventive, unique }: { at: string; preventive: boolean; unique: string },
): WorkRelease {
  const { record } = papers.onFile;
  const meters = metersToEnter(papers, draft.works);
  const readings = readingsOf(draft, meters);
  const read = Object.values(readings).every(Number.isFinite) ? readTotals(readings, record.meters, at) : {};
  const date = draft.date.trim();
  return {
    registration: record.registration,
    date,
    done: draft.done.trim(),
    readings,
    works: draft.works.map((item) => workOf(item, { draft, papers, date, read })),
    closes: draft.closes,
    leaves: leavesOf(draft.leak, { meters, read, date, unique }),
    certificate: { kind: draft.kind.trim(), number: draft.number.trim() },
    ...(draft.reference.trim() !== "" && { reference: draft.reference.trim() }),
    ...(preventive && { preventive: true }),
  };
}

function workOf(
  item: string,
  {
    draft,
    papers,
    date,
    read,
  }: { draft: ReleaseDraft; papers: Airworthiness; date: string; read: Readonly<Record<string, number>> },
): WorkDone {
  const { date: until, reading, source } = draft.sets[item] ?? {};
  const limits = papers.onFile.record.items.find(({ id }) => id === item)?.limits ?? [];
  const ended = limits.find((limit) => limit.by === "reading");
  const at = reading?.trim() ? numberOf(reading) : undefined;
  const sets = {
    ...(until && { date: until }),
    ...(ended?.by === "reading" && at !== undefined && { readings: { [ended.meter]: at } }),
    ...(source?.trim() && { source: source.trim() }),
  };
  const under = draft.under[item];
  return {
    item,
    date,
    totals: ownTotals(papers, item, read),
    ...(Object.keys(sets).length > 0 && { sets }),
    ...(under && { under }),
  };
}

/** What is missing for the completed items: the readings they count by, and what only the person who signs knows. */
export function missingEntries(draft: ReleaseDraft, papers: Airworthiness): ReleaseFault[] {
  const { items, meters } = papers.onFile.record;
  const entered = Object.fromEntries(
    Object.entries(draft.readings).filter(([, reading]) => reading.trim() !== ""),
  );
  const chosen = items.filter(({ id }) => draft.works.includes(id));
  const readings = [...chosen, ...includedIn(items, draft.works)].flatMap((item): ReleaseFault[] => {
    const meter = missingReading(item, entered, meters);
    return meter ? [{ at: `readings.${meter.id}`, words: readingNeeded(meter, item) }] : [];
  });
  return [
    ...readings,
    ...leakFaults(draft, metersToEnter(papers, draft.works)),
    ...chosen.flatMap((item): ReleaseFault[] => {
      const needs = needsOf(item);
      const given = draft.sets[item.id];
      const at = `sets.${item.id}`;
      if (needs.date && !given?.date && !needs.reading)
        return [{ at, words: `${item.name}: enter the new date that is printed.` }];
      if (needs.reading && !given?.date && !Number.isFinite(numberOf(given?.reading?.trim() || "x")))
        return [{ at, words: `${item.name}: enter the new reading at which it ends.` }];
      return [];
    }),
  ];
}

/** A re-inspection needs a number of hours, and the hours that it counts from. */
function leakFaults({ leak, readings }: ReleaseDraft, meters: readonly RecordMeter[]): ReleaseFault[] {
  if (leak.trim() === "") return [];
  const hours = numberOf(leak.trim());
  if (!Number.isFinite(hours) || hours <= 0 || hours > 1000)
    return [{ at: "leak", words: "Enter the hours until the re-inspection, or nothing." }];
  const meter = meters.find(({ kind }) => !isCounted(kind));
  if (meter && !readings[meter.id]?.trim())
    return [
      {
        at: `readings.${meter.id}`,
        words: `Enter the reading of ${meter.name}: the re-inspection counts from it.`,
      },
    ];
  return meter
    ? []
    : [{ at: "leak", words: "This aircraft has no hour meter. Log the re-inspection as a discrepancy." }];
}

/** A component's totals, advanced by the same increments as the aircraft's. */
function ownTotals(
  { pinned }: Airworthiness,
  itemId: string,
  read: Readonly<Record<string, number>>,
): Record<string, number> {
  const own = pinned.dues.find(({ item }) => item.id === itemId)?.own;
  if (!own) return {};
  return Object.fromEntries(
    Object.entries(own).map(([meter, total]) => [
      meter,
      total + Math.max(0, (read[meter] ?? 0) - (pinned.totals[meter] ?? 0)),
    ]),
  );
}

function leavesOf(
  text: string,
  {
    meters,
    read,
    date,
    unique,
  }: { meters: readonly RecordMeter[]; read: Readonly<Record<string, number>>; date: string; unique: string },
): WorkRelease["leaves"] {
  const hours = numberOf(text);
  const meter = meters.find(({ kind }) => !isCounted(kind))?.id;
  const total = meter === undefined ? undefined : read[meter];
  if (
    text.trim() === "" ||
    !Number.isFinite(hours) ||
    hours <= 0 ||
    meter === undefined ||
    total === undefined
  )
    return [];
  return [
    {
      id: `look-again-${date}-${unique}`,
      name: "Re-inspection after maintenance",
      kind: "condition",
      limits: [{ by: "reading", meter, at: Math.round((total + hours) * 10) / 10 }],
      once: true,
      miss: "ask",
      source: {
        kind: "handbook",
        text: `required by the release of ${localDate(`${date}T12:00:00Z`)}`,
        example: false,
      },
    },
  ];
}
