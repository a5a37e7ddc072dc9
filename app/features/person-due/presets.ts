import type { AircraftClass, PersonDue } from "@cravix/core/airworthiness/people/person-due";
import type { Source } from "@cravix/core/judgement/judgement";
import type { Minima } from "@cravix/core/minima/minima";

const rule = (text: string): Source => ({ kind: "rule", text, example: true });

/** Common due items of a pilot; example values, as local rules come first. */
export interface Preset {
  name: string;
  /** Requires a printed date. */
  dated: boolean;
  /** Asks for a class or for aircraft. */
  classed?: true;
  aircraft?: true;
  /** Runs from an examination, by age: requires its date and the date of birth. */
  examined?: true;
  /** Limits are required or optional. */
  minima?: "must" | "may";
  make: (told: {
    date: string;
    class: AircraftClass;
    aircraft: string[];
    name: string;
    born?: string;
    minima?: Minima;
  }) => PersonDue;
}

const slug = (text: string): string =>
  text
    .toLowerCase()
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60);

export const PRESETS: readonly Preset[] = [
  {
    name: "Medical",
    dated: true,
    make: ({ date }) => ({
      id: "medical",
      name: "Medical",
      kind: "medical",
      limits: [{ by: "date", date }],
      miss: "stop",
      source: rule("expiry date on the certificate"),
    }),
  },
  {
    name: "Medical by age",
    dated: false,
    examined: true,
    make: ({ born = "1970-01-01" }) => ({
      id: "medical-by-age",
      name: "Medical",
      kind: "medical",
      limits: [{ by: "months", months: 24, to: "month end", younger: { born, under: 40, months: 60 } }],
      miss: "stop",
      source: rule("14 CFR 61.23(d), third class: 60 calendar months under 40, then 24"),
    }),
  },
  {
    name: "Licence or rating",
    dated: true,
    make: ({ date, name }) => ({
      id: slug(name) || "rating",
      name,
      kind: "rating",
      limits: [{ by: "date", date }],
      miss: "stop",
      source: rule("expiry date in the licence"),
    }),
  },
  {
    name: "Personal minimums",
    dated: false,
    minima: "must",
    make: ({ minima }) => ({
      id: "own-limits",
      name: "Personal minimums",
      kind: "own limits",
      limits: [{ by: "months", months: 12, to: "month end" }],
      ...(minima && { minima }),
      miss: "note",
      source: { kind: "own limit", text: "set when calm, reviewed every year", example: false },
    }),
  },
  {
    name: "Passenger recency",
    dated: false,
    classed: true,
    make: ({ class: of }) => ({
      id: `passengers-${of}`,
      name: `Passenger recency, ${of}`,
      kind: "recency",
      limits: [{ by: "recency", times: 3, days: 90 }],
      for: ["passengers"],
      class: of,
      miss: "stop",
      source: rule("14 CFR 61.57(a): three take-offs and landings within 90 days"),
    }),
  },
  {
    name: "Launches",
    dated: false,
    make: () => ({
      id: "launches",
      name: "Recent launches",
      kind: "recency",
      limits: [{ by: "recency", times: 3, days: 90, launches: true }],
      class: "glider",
      miss: "stop",
      source: rule("example value: three launches within 90 days, as your association requires"),
    }),
  },
  {
    name: "Night passenger recency",
    dated: false,
    classed: true,
    make: ({ class: of }) => ({
      id: `passengers-night-${of}`,
      name: `Night passenger recency, ${of}`,
      kind: "recency",
      limits: [{ by: "recency", times: 3, days: 90, night: true, fullStop: true }],
      for: ["passengers", "night"],
      class: of,
      miss: "stop",
      source: rule("14 CFR 61.57(b): three take-offs and landings to a full stop at night within 90 days"),
    }),
  },
];

/** Presets that only an instructor can enter. */
export const GIVEN_PRESETS: readonly Preset[] = [
  {
    name: "Flight review",
    dated: false,
    make: () => ({
      id: "review",
      name: "Flight review",
      kind: "review",
      limits: [{ by: "months", months: 24, to: "month end" }],
      miss: "stop",
      source: rule("14 CFR 61.56: every 24 calendar months"),
    }),
  },
  {
    name: "Solo authorisation",
    dated: true,
    aircraft: true,
    minima: "may",
    make: ({ date, aircraft, minima }) => ({
      id: slug(`solo ${aircraft.join(" ")}`),
      name: `Solo in ${aircraft.join(", ")}`,
      kind: "authorisation",
      limits: [{ by: "date", date }],
      for: ["solo student"],
      aircraft,
      ...(minima && { minima }),
      miss: "stop",
      source: { kind: "own limit", text: "signed by the instructor", example: false },
    }),
  },
];
