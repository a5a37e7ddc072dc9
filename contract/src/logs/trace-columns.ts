import { CHANNEL_UNITS, type Channel, type PlainChannel } from "@cravix/core/run-up";

/** Content of a trace column: the time, or a channel. */
export type TraceField = "time" | Channel;

/** A column of a file, and its interpretation. */
export interface TraceColumn {
  index: number;
  header: string;
  /** Absent: not used. */
  field?: TraceField;
  unit?: string;
  /** The file has no unit: this one is assumed. */
  assumed?: true;
  /** Confirmed by the user. */
  told?: true;
  /** Unknown unit in the header: the column is unused until the user chooses. */
  unknownUnit?: string;
}

/** Possible units of each column, with conversion to the trace's unit. */
const UNITS: Record<string, Record<string, (value: number) => number>> = {
  rpm: { rpm: (v) => v },
  map: {
    inHg: (v) => v,
    hPa: (v) => v / 33.8639,
    mbar: (v) => v / 33.8639,
    kPa: (v) => v / 3.38639,
    bar: (v) => (v * 1000) / 33.8639,
    psi: (v) => v * 2.03602,
  },
  fuelFlow: {
    "US gal/h": (v) => v,
    "L/h": (v) => v / 3.785411784,
    "imp gal/h": (v) => (v * 4.54609) / 3.785411784,
    "lb/h": (v) => v / 6,
  },
  oilPressure: { psi: (v) => v, bar: (v) => v * 14.5037738, kPa: (v) => v / 6.89475729 },
  oilTemperature: { "°F": (v) => v, "°C": (v) => v * 1.8 + 32 },
  volts: { V: (v) => v },
  amps: { A: (v) => v },
  suction: { inHg: (v) => v, hPa: (v) => v / 33.8639, psi: (v) => v * 2.03602 },
  egt: { "°F": (v) => v, "°C": (v) => v * 1.8 + 32 },
  cht: { "°F": (v) => v, "°C": (v) => v * 1.8 + 32 },
};

/** Spellings of units in headers. */
const WRITTEN = new Map<string, string>(
  Object.entries({
    rpm: "rpm",
    "1/min": "rpm",
    inhg: "inHg",
    "in hg": "inHg",
    '"hg': "inHg",
    hg: "inHg",
    hpa: "hPa",
    mbar: "mbar",
    mb: "mbar",
    kpa: "kPa",
    bar: "bar",
    psi: "psi",
    psig: "psi",
    "lb/in2": "psi",
    "in.hg": "inHg",
    "inches hg": "inHg",
    "us gal/h": "US gal/h",
    gph: "US gal/h",
    "gal/h": "US gal/h",
    "gal/hr": "US gal/h",
    "gals/hr": "US gal/h",
    usgph: "US gal/h",
    "l/h": "L/h",
    lph: "L/h",
    "l/hr": "L/h",
    "ltr/h": "L/h",
    "litres/h": "L/h",
    "liters/h": "L/h",
    "imp gal/h": "imp gal/h",
    "lb/h": "lb/h",
    pph: "lb/h",
    "lb/hr": "lb/h",
    "lbs/hr": "lb/h",
    "lbs/h": "lb/h",
    "°f": "°F",
    f: "°F",
    degf: "°F",
    "deg f": "°F",
    "deg. f": "°F",
    "f°": "°F",
    fahrenheit: "°F",
    "°c": "°C",
    c: "°C",
    degc: "°C",
    "deg c": "°C",
    "deg. c": "°C",
    "c°": "°C",
    celsius: "°C",
    centigrade: "°C",
    v: "V",
    volt: "V",
    volts: "V",
    a: "A",
    amp: "A",
    amps: "A",
    s: "s",
    sec: "s",
    secs: "s",
    seconds: "s",
    ms: "ms",
    "h:m:s": "clock",
    utc: "clock",
    lcl: "clock",
    "hh:mm:ss": "clock",
  }),
);

/** Parses a unit; undefined if unknown. */
export const writtenUnit = (text: string): string | undefined =>
  WRITTEN.get(text.trim().replace(/\s+/g, " ").toLowerCase());

/** Words that identify columns; the longest match wins. */
const WORDS: [RegExp, PlainChannel | "egt" | "cht" | "time"][] = [
  [/^(time|t|seconds|elapsed|elapsed time|lcl time|utc time|time stamp|timestamp|date time)$/, "time"],
  [/^(e1 |eng1 |engine )?(rpm|engine speed|speed|revs)$/, "rpm"],
  [/^(e1 |eng1 )?(map|manifold pressure|manifold|man press|mp)$/, "map"],
  [/^(e1 |eng1 )?(fuel ?flow|fflow|ff)$/, "fuelFlow"],
  [/^(e1 |eng1 )?(oil ?p|oil ?press|oil pressure|oilp)$/, "oilPressure"],
  [/^(e1 |eng1 )?(oil ?t|oil ?temp|oil temperature|oilt)$/, "oilTemperature"],
  [/^(volts?|volt ?1|bus volts|voltage|bus 1)$/, "volts"],
  [/^(amps?|amp ?1|ammeter|battery amps|current)$/, "amps"],
  [/^(suction|vacuum|vac)$/, "suction"],
  [/^(e1 |eng1 )?(egt|exhaust|exhaust gas) ?#?\d+$/, "egt"],
  [/^(e1 |eng1 )?(cht|head|cylinder head) ?#?\d+$/, "cht"],
];

/** Possible units of a field; the first is the trace's. */
export function unitsFor(field: TraceField): string[] {
  if (field === "time") return ["s", "ms", "clock"];
  const kind = kindOf(field);
  const own = CHANNEL_UNITS[kind];
  return [own, ...Object.keys(UNITS[kind] ?? {}).filter((unit) => unit !== own)];
}

/** Kind of column sharing one unit: all EGT probes of a monitor use the same. */
export type UnitKind = PlainChannel | "egt" | "cht";

export function kindOf(channel: Channel): UnitKind {
  return channel.replace(/\d+$/, "") as UnitKind;
}

/** Converts a value to the trace's unit. */
export function toOwnUnit(channel: Channel, unit: string, value: number): number {
  const units = UNITS[kindOf(channel)] ?? {};
  return Object.hasOwn(units, unit) ? (units[unit]?.(value) ?? Number.NaN) : Number.NaN;
}

/**
 * Interprets the columns of a file from their headers: documented names, then common words. A unit in brackets is used; an
 * unknown one leaves the column unused until the user chooses. Without a unit the trace's own is assumed.
 */
export function guessColumns(headers: readonly string[]): TraceColumn[] {
  const taken = new Set<TraceField>();
  return headers.map((header, index) => {
    const bracket = /[([]([^)\]]*)[)\]]/.exec(header);
    const whole = header
      .replace(/[([].*$/, "")
      .replace(/[_-]+/g, " ")
      .replace(/\s+/g, " ")
      .trim()
      .toLowerCase();
    const { name, behind } = partedFrom(whole);
    const kind = kindNamed(name);
    if (!kind) return { index, header };
    const field = (
      kind === "egt" || kind === "cht" ? `${kind}${Number(/(\d+)$/.exec(name)?.[1])}` : kind
    ) as TraceField;
    // Two columns for one channel: the first is used, the other can be chosen by hand.
    if (taken.has(field)) return { index, header };
    const written = bracket?.[1]?.trim() || behind;
    const unit = writtenUnit(written);
    const allowed = unitsFor(field);
    if (written !== "" && (!unit || !allowed.includes(unit)))
      return { index, header, field, unknownUnit: written };
    taken.add(field);
    return { index, header, field, ...(unit ? { unit } : { unit: allowed[0] as string, assumed: true }) };
  });
}

const kindNamed = (name: string) => WORDS.find(([words]) => words.test(name))?.[1];

/** Splits a header into a name and a unit without brackets: "egt 1 c". */
function partedFrom(whole: string): { name: string; behind: string } {
  if (kindNamed(whole)) return { name: whole, behind: "" };
  const words = whole.split(" ");
  for (let count = 1; count <= 2 && count < words.length; count++) {
    const behind = words.slice(-count).join(" ");
    const name = words.slice(0, -count).join(" ");
    if (writtenUnit(behind) && kindNamed(name)) return { name, behind };
  }
  return { name: whole, behind: "" };
}

/** True if a line holds units rather than readings: more than half of its cells are units. */
export function isUnitsRow(cells: readonly string[]): boolean {
  const full = cells.map((cell) => cell.replace(/[()[\]]/g, "").trim()).filter((cell) => cell !== "");
  const units = full.filter((cell) => writtenUnit(cell) !== undefined);
  return (
    units.length >= 2 &&
    units.length * 2 > full.length &&
    full.every((cell) => writtenUnit(cell) !== undefined || !/^[-+]?\d/.test(cell))
  );
}

/**
 * Applies units from a separate line above or below the names. A unit in a header takes precedence; an unknown or unsuitable one
 * leaves the column unused until the user chooses.
 */
export function withUnitsRow(columns: readonly TraceColumn[], cells: readonly string[]): TraceColumn[] {
  return columns.map((column) => {
    const written = (cells[column.index] ?? "").replace(/[()[\]]/g, "").trim();
    if (!column.field || !column.assumed || written === "") return column;
    const { assumed: _, unit: _unit, ...rest } = column;
    const unit = writtenUnit(written);
    // A time format says nothing about its numbers.
    if (column.field === "time") return unit && unitsFor("time").includes(unit) ? { ...rest, unit } : column;
    return unit && unitsFor(column.field).includes(unit)
      ? { ...rest, unit }
      : { ...rest, unknownUnit: written };
  });
}
