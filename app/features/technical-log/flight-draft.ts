import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { isLocalDate } from "@cravix/core/airworthiness/calendar/local-date";
import { checkLine, type LineFault } from "@cravix/core/airworthiness/flights/check-entry";
import { proposeLine } from "@cravix/core/airworthiness/flights/propose-entry";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { typedNumber } from "@cravix/core/units/typed-number";

/** A technical log entry being written, as text fields. */
export interface FlightDraft {
  from: string;
  to: string;
  /** Local date and times, "2026-05-01", "09:30". */
  day: string;
  off: string;
  on: string;
  out: Record<string, string>;
  in: Record<string, string>;
  counts: Record<string, number>;
  /** No flight: a ground run. */
  ground?: boolean;
  nightLandings: number;
  /** Of these, to a full stop: for recency at night. */
  nightFullStops?: number;
  remarks: string;
}

const pad = (n: number) => String(n).padStart(2, "0");
/** Local date and time of a UTC time. */
function localParts(iso: string): { day: string; clock: string } {
  const at = new Date(iso);
  if (Number.isNaN(at.getTime())) return { day: "", clock: "" };
  return {
    day: `${at.getFullYear()}-${pad(at.getMonth() + 1)}-${pad(at.getDate())}`,
    clock: `${pad(at.getHours())}:${pad(at.getMinutes())}`,
  };
}

/** Draft filled with known values. */
export function draftOf(
  papers: AirworthinessOnFile,
  { base, pilot, now, acceptedAt }: { base: string; pilot: string; now: string; acceptedAt?: string },
): FlightDraft {
  const { line } = proposeLine(
    {
      registration: papers.record.registration,
      base,
      pilot,
      ...(acceptedAt && { acceptedAt }),
      ...(papers.lastLine && { before: papers.lastLine }),
    },
    papers.record.meters,
  );
  const off = localParts(line.off || now);
  const out: Record<string, string> = {};
  for (const [meter, read] of Object.entries(line.meters))
    if (read.out !== undefined) out[meter] = String(read.out);
  return {
    from: line.from,
    to: line.to,
    day: off.day,
    off: line.off ? off.clock : "",
    on: "",
    out,
    in: {},
    counts: {
      ...Object.fromEntries(
        papers.record.meters.filter(({ kind }) => isCounted(kind)).map(({ id }) => [id, 0]),
      ),
      ...line.counts,
    },
    nightLandings: 0,
    remarks: "",
  };
}

/** Draft filled from a recorded entry, for correction. */
export function draftFrom(line: TechnicalLogEntry): FlightDraft {
  const [off, on] = [localParts(line.off), localParts(line.on)];
  const read = (side: "out" | "in") =>
    Object.fromEntries(Object.entries(line.meters).map(([meter, pair]) => [meter, String(pair[side])]));
  return {
    from: line.from,
    to: line.to,
    day: off.day,
    off: off.clock,
    on: on.clock,
    out: read("out"),
    in: read("in"),
    counts: { ...line.counts },
    ...(line.ground && { ground: true }),
    nightLandings: line.night?.landings ?? 0,
    ...(line.night?.fullStops !== undefined && { nightFullStops: line.night.fullStops }),
    remarks: line.remarks ?? "",
  };
}

export interface DraftFault {
  at: string;
  words: string;
  weight: LineFault["weight"];
}

const CLOCK = /^([01]?\d|2[0-3])[:.]?([0-5]\d)$/;

/** Converts a draft to an entry, with faults; a flight that ends earlier by the clock than it began ended the next day. */
export function lineOfDraft(
  draft: FlightDraft,
  {
    registration,
    pilot,
    crew,
    meters,
  }: { registration: string; pilot: string; crew?: string[]; meters: readonly RecordMeter[] },
): { line?: Omit<TechnicalLogEntry, "id">; faults: DraftFault[] } {
  const faults: DraftFault[] = [];
  const say = (at: string, words: string) => faults.push({ at, words, weight: "refused" });
  const moment = (field: "off" | "on"): number => {
    const [, hours, minutes] = CLOCK.exec(draft[field].trim()) ?? [];
    const at =
      hours === undefined
        ? Number.NaN
        : new Date(`${draft.day}T${pad(Number(hours))}:${minutes}:00`).getTime();
    if (Number.isNaN(at)) say(field, "Enter a time like 09:30.");
    return at;
  };
  const dated = isLocalDate(draft.day);
  if (!dated) say("day", "Enter the date of the flight.");
  const off = dated ? moment("off") : Number.NaN;
  let on = dated ? moment("on") : Number.NaN;
  if (on <= off) on += 86_400_000;
  if (draft.from.trim() === "") say("from", "Enter the departure airfield.");
  if (draft.to.trim() === "") say("to", "Enter the destination.");
  const read = readingsOf(draft, meters, say);
  if (faults.length > 0) return { faults };
  const counts = draft.ground
    ? {}
    : Object.fromEntries(Object.entries(draft.counts).filter(([, n]) => n > 0));
  return {
    faults,
    line: {
      registration,
      from: draft.from.trim(),
      to: draft.to.trim(),
      off: new Date(off).toISOString(),
      on: new Date(on).toISOString(),
      pilot,
      ...(crew && crew.length > 0 && { crew }),
      meters: read,
      counts,
      ...(draft.ground && { ground: true as const }),
      ...(draft.nightLandings > 0 &&
        !draft.ground && {
          night: {
            takeOffs: draft.nightLandings,
            landings: draft.nightLandings,
            fullStops: fullStopsOf(draft),
          },
        }),
      ...(draft.remarks.trim() !== "" && { remarks: draft.remarks.trim() }),
    },
  };
}

/** Readings out and in of each hour meter; faults go to `say`. */
function readingsOf(
  draft: FlightDraft,
  meters: readonly RecordMeter[],
  say: (at: string, words: string) => void,
): Record<string, { out: number; in: number }> {
  const read: Record<string, { out: number; in: number }> = {};
  for (const { id, kind, name } of meters) {
    if (isCounted(kind)) continue;
    const [out, back] = [draft.out[id], draft.in[id]].map((text) => typedNumber(text ?? ""));
    if (!Number.isFinite(out)) say(`meters.${id}.out`, `${name}: enter the reading before the flight.`);
    if (!Number.isFinite(back)) say(`meters.${id}.in`, `${name}: enter the reading after the flight.`);
    if (Number.isFinite(out) && Number.isFinite(back)) read[id] = { out: out as number, in: back as number };
  }
  return read;
}

/** Landings at night to a full stop: as entered, else the last landing of the flight. */
export const fullStopsOf = ({
  nightLandings,
  nightFullStops = 1,
}: Pick<FlightDraft, "nightLandings" | "nightFullStops">): number => Math.min(nightLandings, nightFullStops);

/** Faults of the entry compared with the previous one. */
export function faultsOf(
  line: Omit<TechnicalLogEntry, "id">,
  {
    papers,
    others,
    now,
    built,
    correcting,
  }: {
    papers: AirworthinessOnFile;
    others: readonly TechnicalLogEntry[];
    now: string;
    built?: number;
    /** Id of the entry that this one replaces. */
    correcting?: string;
  },
): DraftFault[] {
  const { lastLine } = papers;
  // Offline the log may not be loaded, but its last entry is.
  const known = lastLine && !others.some(({ id }) => id === lastLine.id) ? [...others, lastLine] : others;
  const besides = known.filter(({ id }) => id !== correcting);
  const own = besides.filter(({ registration }) => registration === line.registration);
  const before = own.filter(({ off }) => off < line.off).sort((a, b) => (a.off < b.off ? 1 : -1))[0];
  const after = own.filter(({ off }) => off > line.off).sort((a, b) => (a.off < b.off ? -1 : 1))[0];
  return checkLine(
    { id: "new", ...line },
    {
      meters: papers.record.meters,
      others: besides,
      now,
      record: {
        totals: papers.totals,
        from: papers.record.start.at,
        ...(built !== undefined && { built }),
      },
      ...(before && { before }),
      ...(after && { after }),
    },
  ).map(({ at, words, weight }) => ({ at, words, weight }));
}

const NIGHT_FIELDS: Record<string, string> = {
  "night.landings": "nightLandings",
  "night.fullStops": "nightFullStops",
};

/** Field of the form for a fault of the entry: "meters.hours.out" is the entry "hours" of "out". */
export function fieldOf(at: string): string {
  const [, meter, side] = /^meters\.(.+)\.(out|in)$/.exec(at) ?? [];
  return meter !== undefined && side !== undefined ? `${side}.${meter}` : (NIGHT_FIELDS[at] ?? at);
}

/** As in the contract. */
const MAX_REMARKS = 2000;

/** The entry with the questions that were confirmed, so that a reader of the log sees them. */
export function withRemarks(
  line: EventData["flight.logged"],
  despite: readonly string[],
): EventData["flight.logged"] {
  if (despite.length === 0) return line;
  const warning = `Logged despite this warning: ${despite.join(" ")}`;
  return { ...line, remarks: [line.remarks, warning].filter(Boolean).join(" ").slice(0, MAX_REMARKS) };
}
