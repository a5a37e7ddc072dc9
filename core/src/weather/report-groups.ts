/** Kind of a report group by its form; undefined if unknown. Source: WMO-No. 306, FM 15 and FM 51 (from memory). */
export type GroupKind =
  | "kind"
  | "station"
  | "time"
  | "flag"
  | "wind"
  | "between"
  | "visibility"
  | "runway"
  | "weather"
  | "recent"
  | "cloud"
  | "clear"
  | "temperature"
  | "pressure"
  | "shear"
  | "validity"
  | "change"
  | "extreme"
  | "missing";

const SHAPES: [GroupKind, RegExp][] = [
  ["kind", /^(METAR|SPECI|TAF)$/],
  ["flag", /^(AUTO|COR|AMD|NIL|CNL|NOSIG|CC[A-Z])$/],
  ["time", /^\d{6}Z$/],
  ["validity", /^\d{4}\/\d{4}$/],
  ["change", /^(FM\d{6}|BECMG|TEMPO|PROB\d\d|INTER|(FM|TL|AT)\d{4})$/],
  ["extreme", /^T[XN]M?\d\d\/\d{2,4}Z$/],
  // Not measured: neither an unknown group nor a number.
  ["missing", /^(\/+|\/+(KT|MPS|KMH)|\/{2,3}\/\/\/?\/?\/?|Q\/{4}|A\/{4}|\/\/\/\/\/\/[A-Z]*)$/],
  ["wind", /^(\d{3}|VRB)P?\d{2,3}(GP?\d{2,3})?(KT|MPS|KMH)$/],
  ["between", /^\d{3}V\d{3}$/],
  ["visibility", /^(CAVOK|\d{4}(NDV|N|NE|E|SE|S|SW|W|NW)?|[MP]?\d{1,2}SM|[MP]?\d\/\d{1,2}SM|\d{1,2}KM)$/],
  ["runway", /^R\d\d[LCR]?\/.*$/],
  ["recent", /^RE[A-Z]{2,8}$/],
  ["shear", /^(WS|ALL|RWY|R\d\d[LCR]?|RWY\d\d[LCR]?|WS\d{3}\/\d{5,6}KT)$/],
  ["cloud", /^((FEW|SCT|BKN|OVC)\d{3}(CB|TCU|\/\/\/)?|VV\d{3})$/],
  ["clear", /^(SKC|CLR|NSC|NCD|NSW)$/],
  ["temperature", /^M?\d\d\/M?\d\d$/],
  ["pressure", /^(Q\d{4}|A\d{4}|QNH\d{4}INS)$/],
  [
    "weather",
    /^([+-]|VC)?(MI|BC|PR|DR|BL|SH|TS|FZ)?(DZ|RA|SN|SG|IC|PL|GR|GS|UP|BR|FG|FU|VA|DU|SA|HZ|PO|SQ|FC|SS|DS){0,3}$/,
  ],
];

/** Kind of one group. */
export function groupKind(group: string): GroupKind | undefined {
  return SHAPES.find(([, shape]) => shape.test(group))?.[0];
}

/** Splits a text into groups: capitals, single spaces, no end mark. "1 1/2SM" is one group; remarks are left out. */
export function groupsOf(text: string): string[] {
  const all = text
    .toUpperCase()
    .replace(/[=\s]+/g, " ")
    .trim()
    .split(" ");
  const end = all.indexOf("RMK");
  const groups = end < 0 ? all : all.slice(0, end);
  return groups.flatMap((group, i) => {
    if (/^\d$/.test(group) && /^\d\/\d{1,2}SM$/.test(groups[i + 1] ?? "")) return [];
    const whole = groups[i - 1] ?? "";
    return /^\d\/\d{1,2}SM$/.test(group) && /^\d$/.test(whole) ? [`${whole} ${group}`] : [group];
  });
}
