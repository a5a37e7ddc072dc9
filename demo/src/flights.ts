import { newId } from "@cravix/contract";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { FluidRow } from "@cravix/core/logs/fluid-rows";
import { TRAINER_FLIGHTS } from "./history";
import { pastYear } from "./past-year";
import { seededRandom } from "./seeded-random";

const DAY = 86_400_000;
const HOUR = 3_600_000;
const HOME = "Marram Point";
const AWAY = ["Dunlin Strand", "Heronsmere", "Curlew Bank"];
/** Usual pilots; the trainer's full preflights name their own. */
const PILOTS: Record<string, string[]> = {
  "QX-TAR": ["ines", "maren", "ines", "tomasz"],
  "QX-HLD": ["ines", "yuki"],
  "QX-LUM": ["ines", "maren", "yuki"],
  "QX-DOV": ["maren", "yuki"],
  "QX-COR": ["yuki"],
  "QX-ANS": ["maren", "ines", "tomasz"],
};

/** One flight, before it becomes an entry. */
interface Flown {
  at: number;
  out: number;
  back: number;
  pilot?: string;
}

/**
 * A year of technical log entries of each aircraft, deterministic per day, consistent with oil log and preflights: the hour meter
 * at each oil reading is that before the flight.
 */
export function yearOfFlights(now: Date): TechnicalLogEntry[] {
  const oil = pastYear(now).filter((row) => row.fluid === "oil" && row.entry === "level");
  const lines: TechnicalLogEntry[] = [];
  for (const registration of ["QX-TAR", "QX-HLD", "QX-LUM", "QX-DOV", "QX-COR"])
    lines.push(...linesOf(registration, flownBy(registration, oil, now)));
  return [...lines, ...gliderYear(now)].sort((a, b) => a.off.localeCompare(b.off));
}

/** Hours of a flight are those between two oil readings. */
function flownBy(registration: string, oil: readonly FluidRow[], now: Date): Flown[] {
  const rows = oil
    .filter((row) => row.registration === registration && (row.part ?? "left") === "left")
    .map((row) => ({ at: Date.parse(row.at), hours: row.hours ?? 0 }))
    .sort((a, b) => a.at - b.at);
  const flown = rows.flatMap((row, i): Flown[] => {
    const next = rows[i + 1];
    return next && next.hours > row.hours ? [{ at: row.at, out: row.hours, back: next.hours }] : [];
  });
  const last = rows.at(-1);
  const extra = LAST_FLIGHT[registration];
  if (last && extra) flown.push({ at: last.at, out: last.hours, back: tenth(last.hours + extra) });
  if (registration !== "QX-TAR" || !last) return flown;
  // The weeks of full preflights follow.
  let hours = tenth(last.hours + (extra ?? 0));
  for (const [i, [daysAgo, pilot, planned]] of TRAINER_FLIGHTS.entries()) {
    // The last flight returned a little early.
    const back = tenth(hours + planned - (i === TRAINER_FLIGHTS.length - 1 ? 0.2 : 0));
    flown.push({ at: now.getTime() - daysAgo * DAY - 3 * HOUR, out: hours, back, pilot });
    hours = back;
  }
  return flown;
}

/** Hours flown after the last oil reading. */
const LAST_FLIGHT: Record<string, number> = { "QX-TAR": 1.1, "QX-HLD": 0.8 };

const tenth = (value: number) => Math.round(value * 10) / 10;

function linesOf(registration: string, flown: readonly Flown[]): TechnicalLogEntry[] {
  const random = seededRandom(900 + registration.charCodeAt(3));
  const pilots = PILOTS[registration] ?? ["ines"];
  let place = HOME;
  return flown.map(({ at, out, back, pilot }, i) => {
    const hours = back - out;
    // The meter runs while there is oil pressure; block times are a few minutes longer.
    const off = at + 25 * 60_000 + Math.round(random.next() * 10) * 60_000;
    const on = off + Math.round((hours * 60 + 4 + random.next() * 4) * 60_000);
    const lesson = registration === "QX-TAR" && i % 3 === 1;
    const goes =
      place !== HOME || i === flown.length - 1 ? HOME : random.next() < 0.18 ? AWAY[i % AWAY.length] : HOME;
    const from = place;
    place = goes ?? HOME;
    const landings = lesson ? 3 + Math.floor(random.next() * 6) : 1;
    const evening = i % 23 === 7;
    return {
      id: "",
      registration,
      from,
      to: place,
      off: new Date(off).toISOString(),
      on: new Date(on).toISOString(),
      pilot: pilot ?? pilots[i % pilots.length] ?? "ines",
      ...(lesson && { crew: ["maren"] }),
      meters: { hours: { out, in: back } },
      counts: { landings },
      ...(evening && { night: { takeOffs: 1, landings: 1, fullStops: 1 } }),
    };
  });
}

/** The glider flies at weekends, not in winter, mostly by winch. */
function gliderYear(now: Date): TechnicalLogEntry[] {
  const random = seededRandom(977);
  const lines: TechnicalLogEntry[] = [];
  let minutes = 1842 * 60 + 30;
  for (let daysAgo = 362; daysAgo > 2; daysAgo--) {
    const day = new Date(now.getTime() - daysAgo * DAY);
    const month = day.getUTCMonth() + 1;
    const weekend = day.getUTCDay() === 0 || day.getUTCDay() === 6;
    if (!weekend || month < 3 || month > 10 || random.next() < 0.35) continue;
    let at = Date.parse(`${day.toISOString().slice(0, 10)}T09:30:00.000Z`);
    for (let n = 1 + Math.floor(random.next() * 4); n > 0; n--) {
      const soaring = random.next() < 0.3;
      const length = soaring ? 50 + Math.floor(random.next() * 120) : 5 + Math.floor(random.next() * 8);
      const towed = random.next() < 0.2;
      const pilots = PILOTS["QX-ANS"] as string[];
      lines.push({
        id: "",
        registration: "QX-ANS",
        from: HOME,
        to: HOME,
        off: new Date(at).toISOString(),
        on: new Date(at + length * 60_000).toISOString(),
        pilot: pilots[lines.length % pilots.length] ?? "maren",
        meters: { air: { out: hundredth(minutes / 60), in: hundredth((minutes + length) / 60) } },
        counts: { landings: 1, ...(towed ? { aerotows: 1 } : { winch: 1 }), releases: 1 },
      });
      minutes += length;
      at += (length + 15) * 60_000;
    }
  }
  return lines;
}

const hundredth = (value: number) => Math.round(value * 100) / 100;

/** The entries as events, one per flight. */
export function flightEvents(now: Date): PreflightEvent[] {
  const random = seededRandom(41);
  const deviceId = newId(now.getTime() - 400 * DAY, random.bytes(16));
  return yearOfFlights(now).map(({ id: _id, ...line }) => {
    const at = new Date(Math.min(Date.parse(line.on) + 10 * 60_000, now.getTime() - 60_000));
    const id = newId(at.getTime(), random.bytes(16));
    return {
      id,
      type: "flight.logged",
      stream: "flight",
      streamId: id,
      deviceId,
      crewId: line.pilot,
      at: at.toISOString(),
      data: line,
    };
  });
}
