import { contentHash, newId } from "@cravix/contract";
import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { observeItemId } from "@cravix/core/checklist/list/added-items";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { dipForVolume } from "@cravix/core/fuel/tanks/volume-from-dip";
import { subjectOfCause, WAIVER_REASONS } from "@cravix/core/judgement/flight-subjects";
import { convert } from "@cravix/core/units/convert";
import { readingForValue } from "@cravix/core/units/monotone-curve";
import { judgePreflight } from "@cravix/core/verdict/judge-preflight";
import { airfield, crew, qxTar, rules, tarrow4 } from "./scenario";
import { seededRandom } from "./seeded-random";

const DAY = 86_400_000;
/** The trainer's fuel at its first and last preflight, litres per tank; refuelled in between when low. */
const FUEL = {
  first: { left: 80, right: 78 },
  last: { left: 89.5, right: 86.1 },
  fillBelow: 95,
  burnPerH: 33,
  taxi: 4,
};
/** Trainer flights: days ago, oldest first, with pilot and hours. */
export const TRAINER_FLIGHTS: [daysAgo: number, crewId: string, hours: number][] = [
  [36, "ines", 1.2],
  [34, "maren", 0.9],
  [31, "tomasz", 1.1],
  [30, "ines", 1.4],
  [27, "ines", 2.1],
  [25, "ines", 0.8],
  [23, "tomasz", 1.0],
  [20, "ines", 1.3],
  [17, "maren", 1.1],
  [14, "ines", 0.9],
  [12, "ines", 1.6],
  [9, "maren", 1.2],
  [7, "ines", 1.0],
  [5, "ines", 1.4],
  [3, "ines", 0.9],
  [1, "tomasz", 1.1],
];
const CREEP = {
  text: "Right wheel: creep mark parted",
  station: "right-gear",
  item: "right-gear.creep",
  flight: 11,
};
const LAMP = {
  text: "Tail light: lens cracked",
  station: "tail",
  item: "tail.light",
  flight: 3,
  closedAfterFlight: 5,
};

/** Left magneto drop of the last preflights, by flight. */
const LEFT_DROPS: Record<number, number> = { 11: 70, 12: 80, 13: 90, 14: 100, 15: 110 };

export interface History {
  events: PreflightEvent[];
  lists: Map<string, ComposedList>;
}

/**
 * Several weeks of QX-TAR, deterministic for any `now`: full preflights whose oil falls a little faster each flight, a lens found
 * and repaired, and a creep mark still open.
 */
export function trainerHistory(now: Date): History {
  const random = seededRandom(20);
  const deviceId = newId(now.getTime() - 60 * DAY, random.bytes(16));
  const events: PreflightEvent[] = [];
  const lists = new Map<string, ComposedList>();
  let oilQt = 7.6;
  let oilAdded = 0;
  const fuel = { ...FUEL.first };
  let receipt = 3911;
  let hours = 4211.3;
  let creepMm = 3;
  let open: OpenDiscrepancy[] = [];
  const lampId = newId(now.getTime() - 30 * DAY, random.bytes(16));
  const creepId = newId(now.getTime() - 9 * DAY, random.bytes(16));

  TRAINER_FLIGHTS.forEach(([daysAgo, crewId, flown], flight) => {
    let at = now.getTime() - daysAgo * DAY - 3 * 3_600_000;
    const streamId = newId(at, random.bytes(16));
    const append = <T extends EventType>(type: T, data: EventData[T], by = crewId) => {
      at += 4000 + Math.floor(random.next() * 11_000);
      events.push({
        id: newId(at, random.bytes(16)),
        type,
        streamId,
        deviceId,
        crewId: by,
        at: new Date(at).toISOString(),
        data,
      } as PreflightEvent);
    };
    const list = composeList({
      type: tarrow4,
      aircraft: qxTar,
      conditions: ["first of the day"],
      openDiscrepancies: open,
      airfield,
      rules,
    });
    const listHash = contentHash(list);
    lists.set(listHash, list);
    append("preflight.started", {
      registration: "QX-TAR",
      listHash,
      conditions: list.conditions,
      plannedFlightMin: Math.round(flown * 60),
    });
    // Refuelled when low, and to a known amount before the last preflight.
    const wanted =
      flight === TRAINER_FLIGHTS.length - 1
        ? FUEL.last
        : fuel.left + fuel.right < FUEL.fillBelow
          ? { left: 90, right: 90 }
          : fuel;
    for (const tankId of ["left", "right"] as const) {
      const amount = Math.round(wanted[tankId] - fuel[tankId]);
      if (amount < 1) continue;
      append("fuel.uplifted", {
        registration: "QX-TAR",
        tankId,
        amount,
        unit: "L",
        grade: "100LL",
        receipt: String(receipt++),
        from: "pump",
      });
      fuel[tankId] += amount;
    }
    if (oilAdded > 0)
      append("oil.added", { registration: "QX-TAR", qt: oilAdded, grade: "W100", sealed: true });
    oilAdded = 0;
    const values = readings({ flight, oilQt, hours, fuel, random });
    for (const item of list.items) {
      if (item.discrepancyId) {
        const measure = item.discrepancyId === creepId ? `${creepMm} mm` : undefined;
        append("discrepancy.observed", {
          discrepancyId: item.discrepancyId,
          itemId: observeItemId(item.discrepancyId),
          state: "same",
          ...(measure && { measure }),
        });
      } else if (flight === LAMP.flight && item.id === LAMP.item) {
        append("discrepancy.opened", {
          discrepancyId: lampId,
          registration: "QX-TAR",
          stationId: LAMP.station,
          itemId: item.id,
          text: LAMP.text,
          grade: "note",
        });
        open = [
          ...open,
          {
            id: lampId,
            stationId: LAMP.station,
            text: LAMP.text,
            grade: "note",
            openedAt: new Date(at).toISOString(),
            openedBy: name(crewId),
          },
        ];
      } else if (flight === CREEP.flight && item.id === CREEP.item) {
        append("discrepancy.opened", {
          discrepancyId: creepId,
          registration: "QX-TAR",
          stationId: CREEP.station,
          itemId: item.id,
          text: CREEP.text,
          grade: "watch",
          measure: `${creepMm} mm`,
        });
        open = [
          ...open,
          {
            id: creepId,
            stationId: CREEP.station,
            text: CREEP.text,
            grade: "watch",
            openedAt: new Date(at).toISOString(),
            openedBy: name(crewId),
            measure: `${creepMm} mm`,
          },
        ];
      } else {
        const [type, data] = answer(item, values);
        append(type, data);
      }
    }
    const state = foldPreflight(
      streamId,
      events.filter((e) => e.streamId === streamId),
    );
    const { judgements } = judgePreflight(list, state);
    const subjects = [...new Set(judgements.flatMap(({ cause }) => subjectOfCause(cause) ?? []))];
    append("assessment.waived", { subjects, why: WAIVER_REASONS[0] });
    const notes = [
      ...judgements.filter((j) => j.grade !== "within limits").map((j) => j.sentence),
      ...open.map((d) => d.text),
    ];
    append("verdict.signed", {
      verdict: notes.length > 0 ? "go with notes" : "go",
      decision: "fly",
      reasons: notes,
    });
    if (flight === LAMP.closedAfterFlight) {
      append("discrepancy.closed", { discrepancyId: lampId, how: "Lens replaced, light checked." }, "kofi");
      open = open.filter((d) => d.id !== lampId);
    }
    if (flight === 13) creepMm = 4;
    hours += flown;
    // The trend to notice: from a tenth of a quart per hour to a quarter within a month.
    oilQt -= flown * (0.1 + 0.012 * flight);
    if (oilQt < 6.9) {
      oilQt += 1;
      oilAdded = 1;
    }
    for (const tankId of ["left", "right"] as const) fuel[tankId] -= (flown * FUEL.burnPerH + FUEL.taxi) / 2;
  });
  return { events, lists };
}

function name(crewId: string): string {
  return crew.members.find((member) => member.id === crewId)?.name ?? crewId;
}

/** Dipstick and gauge readings for a number of litres, by the trainer's calibrations. */
function tankReadings(
  fuel: Record<string, number>,
  about: (value: number, spread: number, step: number) => number,
) {
  return (tarrow4.fuel?.tanks ?? []).flatMap((tank): [string, number][] => {
    const litres = fuel[tank.id] ?? 0;
    if (!tank.calibration || !tank.gauge) return [];
    const scale = tank.gauge.points.map(({ at, litres: value }) => ({ at, value }));
    return [
      [`fuel.dip.${tank.id}`, about(dipForVolume(tank.calibration, litres), 0.2, 0.1)],
      [`fuel.gauge.${tank.id}`, about(readingForValue(scale, litres), 1, 1)],
    ];
  });
}

function readings({
  oilQt,
  hours,
  fuel,
  flight,
  random,
}: {
  flight: number;
  oilQt: number;
  hours: number;
  fuel: Record<string, number>;
  random: ReturnType<typeof seededRandom>;
}) {
  const about = (value: number, spread: number, step: number) =>
    Math.round((value + (random.next() - 0.5) * 2 * spread) / step) * step;
  const base = about(1800, 10, 10);
  // The other trend to notice: within its limit of 125, but increasing over the last flights.
  const leftDrop = LEFT_DROPS[flight] ?? about(70, 10, 10);
  return new Map<string, number>([
    ["hours", hours],
    ["volts.before-start", about(25.1, 0.3, 0.1)],
    ["nose-oleo", about(3.8, 0.4, 0.1)],
    ...tankReadings(fuel, about),
    ["oil.level", oilQt],
    ["oil.temperature", about(convert(70, "°C", "°F"), 12, 1)],
    ["oil.pressure", about(72, 6, 1)],
    ["altimeter", about(30, 15, 1)],
    ["magneto.base", base],
    ["magneto.right", base - about(70, 10, 10)],
    ["magneto.left", base - leftDrop],
    ["carburettor-heat.hot", base - about(100, 20, 10)],
    ["carburettor-heat.cold-again", base],
    ["suction", 5],
    ["volts.charging", about(28.1, 0.3, 0.1)],
    ["idle", about(650, 40, 10)],
    ["instrument.compass", about(62, 2, 1)],
    ["instrument.heading", about(63, 2, 1)],
    ["instrument.climb", about(10, 10, 10)],
    ["wind.from", about(250, 30, 10)],
    ["wind.speed", about(9, 5, 1)],
    ["wind.gust", 0],
    ["altimeter.setting", about(1015, 9, 1)],
  ]);
}

function answer(
  item: Item,
  values: Map<string, number>,
): ["reading.taken", EventData["reading.taken"]] | ["item.answered", EventData["item.answered"]] {
  const { reading } = item;
  if (reading) {
    const value = Number((values.get(reading.key) ?? 0).toFixed(reading.decimals));
    return [
      "reading.taken",
      {
        itemId: item.id,
        key: reading.key,
        value,
        unit: reading.unit,
        ...(reading.feel && { feel: "smooth" as const }),
      },
    ];
  }
  const value =
    item.kind === "count" ? String(item.expected) : item.choicesFrom === "runways" ? "24" : undefined;
  return ["item.answered", { itemId: item.id, outcome: "checked", ...(value && { value }) }];
}
