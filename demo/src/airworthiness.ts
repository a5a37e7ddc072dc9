import type { AircraftRecord, RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { addDays, endOfMonth } from "@cravix/core/airworthiness/calendar/local-date";
import type { DueItem, DueLimit, Tolerance, WorkDone } from "@cravix/core/airworthiness/due/due-item";
import { foldTotals } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { Component, Fitting } from "@cravix/core/airworthiness/meters/component";
import { roundMeter } from "@cravix/core/airworthiness/meters/meter";
import type { Source } from "@cravix/core/judgement/judgement";
import { yearOfFlights } from "./flights";

/** Every value is an example: the aircraft's maintenance programme and local rules come first. */
const rule = (text: string): Source => ({ kind: "rule", text, example: true });
const programme = (text: string): Source => ({ kind: "handbook", text, example: true });

const FERRY: Tolerance = {
  most: 10,
  for: "to the place of the work",
  takenOff: true,
  source: rule("14 CFR 91.409(b): at most 10 h, to reach the place of the inspection"),
};

const months = (n: number, more: Partial<Extract<DueLimit, { by: "months" }>> = {}): DueLimit => ({
  by: "months",
  months: n,
  to: "month end",
  ...more,
});
const every = (meter: string, n: number, tolerances?: Tolerance[]): DueLimit => ({
  by: "meter",
  meter,
  every: n,
  ...(tolerances && { tolerances }),
});

const HOURS: RecordMeter = {
  id: "hours",
  name: "Hour meter",
  kind: "hour meter",
  decimals: 1,
  reading: "hours",
};
const LANDINGS: RecordMeter = { id: "landings", name: "Landings", kind: "landings", decimals: 0 };

/** An item, and when it was last done: days ago, and hours (or other counts) before today's total. */
interface Planned {
  item: DueItem;
  daysAgo?: number;
  ago?: number;
}

const item = (
  id: string,
  name: string,
  kind: DueItem["kind"],
  limits: DueLimit[],
  source: Source,
  more: Partial<DueItem> = {},
): DueItem => ({
  id,
  name,
  kind,
  limits,
  miss: "stop",
  source,
  ...more,
});

/** Items of every powered aircraft; `h` is the meter they count by. */
function usual(
  today: string,
  { annual = 200, hundred = 60, oil = 20, oilDays = 50, vor = 12, beaconBattery = 420 },
): Planned[] {
  const inDays = (days: number) => addDays(today, days);
  return [
    {
      item: item(
        "annual",
        "Annual inspection",
        "inspection",
        [months(12)],
        rule("14 CFR 91.409(a): 12 calendar months"),
        { workH: 18, does: ["hundred"] },
      ),
      daysAgo: annual,
      // Within a hundred hours before the last 100-hour inspection.
      ago: hundred + 80,
    },
    {
      item: item(
        "hundred",
        "100-hour inspection",
        "inspection",
        [every("hours", 100, [FERRY])],
        rule("14 CFR 91.409(b): 100 h, for hire and instruction"),
        { workH: 10 },
      ),
      daysAgo: 70,
      ago: hundred,
    },
    {
      item: item(
        "oil",
        "Oil and filter",
        "inspection",
        [every("hours", 50), months(4, { to: "same day" })],
        programme("example value: engine maker's programme, 50 h or 4 months"),
        { workH: 2, preventive: true },
      ),
      daysAgo: oilDays,
      ago: oil,
    },
    {
      item: item(
        "altimeter",
        "Altimeter and static system",
        "check",
        [months(24)],
        rule("14 CFR 91.411: 24 calendar months, for instrument flight"),
        { for: ["instrument"], workH: 3 },
      ),
      daysAgo: 430,
    },
    {
      item: item(
        "transponder",
        "Transponder",
        "check",
        [months(24)],
        rule("14 CFR 91.413: 24 calendar months"),
        { miss: "ask", workH: 1 },
      ),
      daysAgo: 430,
    },
    {
      item: item(
        "beacon",
        "Emergency beacon, inspection",
        "check",
        [months(12)],
        rule("14 CFR 91.207(d): 12 calendar months"),
        { workH: 1 },
      ),
      daysAgo: annual,
    },
    {
      item: item(
        "beacon-battery",
        "Emergency beacon, battery",
        "life",
        [{ by: "date", date: endOfMonth(inDays(beaconBattery)) }],
        rule("14 CFR 91.207(c): by the date printed outside, or after one hour of use"),
        { preventive: true, workH: 0.5 },
      ),
    },
    {
      item: item(
        "vor",
        "VOR check",
        "check",
        [{ by: "days", days: 30 }],
        rule("14 CFR 91.171: within 30 days, for instrument flight"),
        { for: ["instrument"], doneBy: "pilot" },
      ),
      daysAgo: vor,
    },
    {
      item: item(
        "extinguisher",
        "Extinguisher",
        "check",
        [{ by: "date", date: endOfMonth(inDays(500)) }],
        programme("expiry date on the label"),
        { miss: "ask" },
      ),
    },
    {
      item: item(
        "first-aid",
        "First aid kit",
        "check",
        [{ by: "date", date: endOfMonth(inDays(260)) }],
        programme("expiry date on the label"),
        { miss: "note" },
      ),
    },
    {
      item: item(
        "registration",
        "Registration",
        "document",
        [{ by: "date", date: inDays(640) }],
        rule("14 CFR 91.203: on board and in date"),
      ),
    },
    {
      item: item(
        "insurance",
        "Insurance",
        "document",
        [{ by: "date", date: endOfMonth(inDays(140)) }],
        programme("expiry date of the policy"),
      ),
    },
    {
      item: item(
        "radio-licence",
        "Radio licence",
        "document",
        [{ by: "date", date: inDays(900) }],
        rule("local rules"),
        { miss: "ask" },
      ),
    },
    {
      item: item(
        "weighing",
        "Weighing report",
        "weighing",
        [months(48)],
        programme("example value: every 48 months"),
        { miss: "ask", workH: 4 },
      ),
      daysAgo: 800,
    },
  ];
}

const engine = (
  of: string,
  name: string,
  sinceNew: number,
  at: string,
  position: string,
): [Component, Omit<Fitting, "registration">] => [
  { id: of, name, kind: "engine", sinceNew: { hours: sinceNew } },
  { component: of, position, on: { at, totals: {} } },
];

interface Made {
  registration: string;
  meters: RecordMeter[];
  start: Record<string, number>;
  planned: Planned[];
  components?: [Component, Omit<Fitting, "registration">][];
}

/** Airworthiness data of each aircraft as of today. */
function made(today: string): Made[] {
  const at = `${addDays(today, -400)}T12:00:00.000Z`;
  const magnetos = (of: string, ago: number, name = "Magnetos"): Planned => ({
    item: item(
      `magnetos.${of}`,
      name,
      "overhaul",
      [every("hours", 500)],
      programme("example value: magneto maker, 500 h"),
      { of, workH: 6, miss: "ask" },
    ),
    daysAgo: 600,
    ago,
  });
  const overhaul = (of: string, name: string, hours: number, ago: number, daysAgo: number): Planned => ({
    item: item(
      `overhaul.${of}`,
      name,
      "overhaul",
      [every("hours", hours), months(144, { to: "same day" })],
      programme(`example value: ${hours} h or 12 years`),
      { of, workH: 40, miss: "ask" },
    ),
    daysAgo,
    ago,
  });
  return [
    {
      registration: "QX-TAR",
      meters: [HOURS, LANDINGS],
      start: { landings: 9812 },
      components: [engine("engine", "Engine", 2940.5, at, "engine")],
      planned: [
        // 2.1 h left: enough for one hour, not for a long flight.
        ...usual(today, { hundred: 97.9, oil: 31.4, oilDays: 66 }),
        magnetos("engine", 312.4),
        overhaul("engine", "Engine overhaul", 2000, 1210.3, 2100),
        {
          item: item(
            "seat-rails",
            "Directive: seat rails",
            "directive",
            [every("hours", 100)],
            rule("example directive: every 100 h until replaced"),
            { workH: 1 },
          ),
          daysAgo: 70,
          ago: 62.3,
        },
        {
          item: item(
            "tyres",
            "Main tyres",
            "life",
            [every("landings", 600)],
            programme("example value: group's own, 600 landings"),
            { miss: "note", workH: 2 },
          ),
          daysAgo: 160,
          ago: 412,
        },
      ],
    },
    {
      registration: "QX-HLD",
      meters: [HOURS, LANDINGS],
      start: { landings: 3105 },
      components: [engine("engine", "Engine", 1480.2, at, "engine")],
      planned: [
        // Almost used up: the flight to the workshop is longer than what is left.
        ...usual(today, { annual: 300, hundred: 98.6, oil: 22.8 }),
        magnetos("engine", 260.1),
        overhaul("engine", "Engine overhaul", 1700, 1100.4, 1500),
        overhaul("propeller", "Propeller overhaul", 2000, 700.2, 1500),
        {
          item: item(
            "database",
            "Navigation database",
            "database",
            [{ by: "date", date: addDays(today, 9) }],
            programme("end of the 28-day cycle, as the database shows it"),
            { miss: "note", for: ["instrument"] },
          ),
        },
      ],
    },
    {
      registration: "QX-LUM",
      meters: [HOURS, LANDINGS],
      start: { landings: 1440 },
      planned: [
        ...usual(today, { hundred: 44.2, oil: 24.2, oilDays: 60 }),
        {
          item: item(
            "hoses",
            "Directive: rubber hoses",
            "directive",
            [months(60, { to: "same day" })],
            programme("example value: engine maker, 5 years"),
            { workH: 8 },
          ),
          daysAgo: 1500,
        },
        {
          item: item(
            "rocket",
            "Recovery parachute, repack",
            "life",
            [{ by: "date", date: endOfMonth(addDays(today, 410)) }],
            programme("expiry date on the label"),
            { miss: "ask" },
          ),
        },
      ],
    },
    {
      registration: "QX-DOV",
      meters: [HOURS, LANDINGS],
      start: { landings: 5230 },
      components: [
        engine("engine-left", "Left engine", 1890.4, at, "left engine"),
        // This one came from another aircraft, with different times.
        engine("engine-right", "Right engine", 640.8, at, "right engine"),
      ],
      planned: [
        ...usual(today, { annual: 340, hundred: 61.7, oil: 30.2, oilDays: 80 }),
        magnetos("engine-left", 420.8, "Magnetos, left engine"),
        magnetos("engine-right", 140.2, "Magnetos, right engine"),
        overhaul("engine-left", "Left engine overhaul", 1800, 1690.4, 3000),
        overhaul("engine-right", "Right engine overhaul", 1800, 640.8, 1400),
        {
          item: item(
            "heater",
            "Directive: combustion heater",
            "directive",
            [every("hours", 100), months(24)],
            rule("example directive: heater pressure test"),
            { workH: 4 },
          ),
          daysAgo: 300,
          ago: 61.7,
        },
      ],
    },
    {
      registration: "QX-ANS",
      meters: [
        { id: "air", name: "Flight hours", kind: "air time", decimals: 2, reading: "hours" },
        LANDINGS,
        { id: "winch", name: "Winch launches", kind: "winch launches", decimals: 0 },
        { id: "aerotows", name: "Aerotows", kind: "aerotows", decimals: 0 },
        { id: "releases", name: "Tow releases", kind: "releases", decimals: 0 },
      ],
      start: { landings: 6210, winch: 5004, aerotows: 1206, releases: 6210 },
      planned: [
        {
          item: item(
            "annual",
            "Annual inspection",
            "inspection",
            [months(12)],
            programme("example value: 12 calendar months"),
            { workH: 12 },
          ),
          daysAgo: 240,
        },
        {
          item: item(
            "hook",
            "Tow hooks, overhaul",
            "overhaul",
            [every("releases", 2000), months(48, { to: "same day" })],
            programme("example value: hook maker, 2,000 releases or 4 years"),
            { workH: 3 },
          ),
          daysAgo: 700,
          ago: 1490,
        },
        {
          item: item(
            "parachutes",
            "Parachutes, repack",
            "check",
            [{ by: "date", date: endOfMonth(addDays(today, 95)) }],
            programme("date on the packing card"),
            { miss: "stop" },
          ),
        },
        {
          item: item(
            "hours-3000",
            "3,000-hour inspection",
            "inspection",
            [every("air", 3000)],
            programme("example value: every 3,000 h"),
            { workH: 60 },
          ),
          daysAgo: 4000,
          ago: 1842,
        },
        {
          item: item(
            "insurance",
            "Insurance",
            "document",
            [{ by: "date", date: endOfMonth(addDays(today, 140)) }],
            programme("expiry date of the policy"),
          ),
        },
        {
          item: item(
            "beacon",
            "Emergency beacon, inspection",
            "check",
            [months(12)],
            programme("example value: 12 calendar months"),
            { miss: "ask", workH: 1 },
          ),
          daysAgo: 240,
        },
        {
          item: item(
            "weighing",
            "Weighing report",
            "weighing",
            [months(60)],
            programme("example value: every 5 years"),
            { miss: "ask", workH: 4 },
          ),
          daysAgo: 900,
        },
      ],
    },
    {
      registration: "QX-COR",
      meters: [HOURS, LANDINGS],
      start: { landings: 2760 },
      components: [engine("engine", "Radial engine", 402.6, at, "engine")],
      planned: [
        ...usual(today, { annual: 150, hundred: 12.4, oil: 12.4, oilDays: 100 }).filter(
          ({ item: one }) => one.id !== "altimeter",
        ),
        {
          item: item(
            "fold-pins",
            "Directive: wing-fold pins",
            "directive",
            [every("hours", 25)],
            rule("example directive: every 25 h until modified"),
            { workH: 2 },
          ),
          daysAgo: 100,
          ago: 12.4,
        },
        {
          item: item(
            "parachutes",
            "Parachutes, repack",
            "check",
            [{ by: "date", date: endOfMonth(addDays(today, 70)) }],
            programme("date on the packing card"),
            { miss: "stop" },
          ),
        },
        overhaul("engine", "Engine overhaul", 1200, 402.6, 2600),
      ],
    },
  ];
}

/** Airworthiness files of the group's six aircraft, deterministic per day, consistent with the log. */
export function airworthinessFiles(now: Date): AircraftRecord[] {
  const today = now.toISOString().slice(0, 10);
  const lines = yearOfFlights(now);
  return made(today).map(({ registration, meters, start, planned, components = [] }) => {
    const own = lines.filter((line) => line.registration === registration);
    const read: Record<string, number> = {};
    for (const { id } of meters) {
      const first = own[0]?.meters[id];
      if (first) read[id] = first.out;
    }
    const begun = { ...read, ...start };
    const totals = foldTotals(begun, own, meters).totals;
    const at = own[0]?.off ?? now.toISOString();
    // A component's present time: initial time plus hours since.
    const fittings: Fitting[] = components.map(([, fitting]) => ({
      ...fitting,
      registration,
      on: { at, totals: begun },
    }));
    const timeOf = (of: string | undefined, meter: string) => {
      const component = components.find(([one]) => one.id === of)?.[0];
      const flown = (totals[meter] ?? 0) - (begun[meter] ?? 0);
      return component ? roundMeter((component.sinceNew[meter] ?? 0) + flown) : (totals[meter] ?? 0);
    };
    const fitted = new Set(components.map(([component]) => component.id));
    const ids = new Set(planned.map(({ item: one }) => one.id));
    const items = planned.map(({ item: one }) => {
      const { of, does, ...rest } = one;
      const included = does?.filter((id) => ids.has(id)) ?? [];
      return {
        ...rest,
        ...(of !== undefined && fitted.has(of) && { of }),
        ...(included.length > 0 && { does: included }),
      };
    });
    const works = planned.flatMap(({ item: one, daysAgo, ago }): WorkDone[] => {
      if (daysAgo === undefined) return [];
      const of = one.of !== undefined && fitted.has(one.of) ? one.of : undefined;
      const also = planned.filter(({ item: { id } }) => one.does?.includes(id));
      const meter = [one, ...also.map((included) => included.item)]
        .flatMap(({ limits }) => limits)
        .find((limit) => limit.by === "meter");
      const done =
        meter && meter.by === "meter"
          ? { [meter.meter]: roundMeter(Math.max(0, timeOf(of, meter.meter) - (ago ?? 0))) }
          : {};
      return [{ item: one.id, date: addDays(today, -daysAgo), totals: done }];
    });
    return {
      format: "cravix.airworthiness/1",
      registration,
      timeZone: "Europe/Lisbon",
      meters,
      start: { at, totals: begun },
      components: components.map(([component]) => component),
      fittings,
      items,
      works,
    };
  });
}
