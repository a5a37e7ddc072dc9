import { newId } from "@cravix/contract";
import type { PersonDue, PersonWork } from "@cravix/core/airworthiness/people/person-due";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { Source } from "@cravix/core/judgement/judgement";

const DAY = 86_400_000;
const DEVICE = "0198a000-0000-7000-8000-0000000000fe";

const rule = (text: string): Source => ({ kind: "rule", text, example: true });
const day = (now: Date, ahead: number): string =>
  new Date(now.getTime() + ahead * DAY).toISOString().slice(0, 10);

const PASSENGERS: PersonDue = {
  id: "passengers",
  name: "Passenger recency",
  kind: "recency",
  limits: [{ by: "recency", times: 3, days: 90 }],
  for: ["passengers"],
  class: "single-engine",
  miss: "stop",
  source: rule("14 CFR 61.57(a): three take-offs and landings within 90 days"),
};
const NIGHT: PersonDue = {
  ...PASSENGERS,
  id: "passengers-night",
  name: "Night passenger recency",
  limits: [{ by: "recency", times: 3, days: 90, night: true, fullStop: true }],
  for: ["passengers", "night"],
  source: rule("14 CFR 61.57(b): three take-offs and landings to a full stop at night within 90 days"),
};
const REVIEW: PersonDue = {
  id: "review",
  name: "Flight review",
  kind: "review",
  limits: [{ by: "months", months: 24, to: "month end" }],
  miss: "stop",
  source: rule("14 CFR 61.56: every 24 calendar months"),
};
const medical = (date: string): PersonDue => ({
  id: "medical",
  name: "Medical",
  kind: "medical",
  limits: [{ by: "date", date }],
  miss: "stop",
  source: rule("expiry date on the certificate"),
});

const OWN_LIMITS: PersonDue = {
  id: "own-limits",
  name: "Personal minimums",
  kind: "own limits",
  limits: [{ by: "months", months: 12, to: "month end" }],
  minima: {
    windKt: 25,
    crosswindKt: 12,
    tailwindKt: 3,
    ceilingFt: 1500,
    visibilityM: 6000,
    runwayFactor: 1.4,
  },
  miss: "note",
  source: { kind: "own limit", text: "set when calm, reviewed every year", example: true },
};

/** Due items of the demo's people: in date, due soon, and overdue. */
function peopleOf(now: Date): { personId: string; by: string; items: PersonDue[]; works: PersonWork[] }[] {
  return [
    {
      personId: "ines",
      by: "ines",
      items: [medical(day(now, 152)), PASSENGERS, NIGHT, OWN_LIMITS],
      works: [{ item: "own-limits", date: day(now, -30) }],
    },
    {
      personId: "ines",
      by: "maren",
      items: [REVIEW],
      works: [{ item: "review", date: day(now, -390) }],
    },
    {
      personId: "tomasz",
      by: "maren",
      items: [
        {
          id: "solo",
          name: "Solo in QX-TAR",
          kind: "authorisation",
          limits: [{ by: "date", date: day(now, 12) }],
          for: ["solo student"],
          aircraft: ["QX-TAR"],
          minima: {
            windKt: 18,
            crosswindKt: 8,
            tailwindKt: 0,
            ceilingFt: 2000,
            visibilityM: 8000,
            noNight: true,
          },
          miss: "stop",
          source: { kind: "own limit", text: "signed by the instructor", example: true },
        },
      ],
      works: [],
    },
    { personId: "tomasz", by: "tomasz", items: [medical(day(now, 610))], works: [] },
    { personId: "maren", by: "maren", items: [medical(day(now, 21)), PASSENGERS, NIGHT], works: [] },
    { personId: "yuki", by: "yuki", items: [medical(day(now, -6)), PASSENGERS], works: [] },
  ];
}

/** The same as events, each by an authorised person. */
export function personEvents(now: Date): PreflightEvent[] {
  let n = 0;
  return peopleOf(now).flatMap(({ personId, by, items, works }) => {
    const made = (data: object, type: "person.due-set" | "person.done"): PreflightEvent => {
      const at = now.getTime() - 40 * DAY + n++ * 1000;
      const id = newId(at);
      return {
        id,
        type,
        stream: "person",
        streamId: id,
        deviceId: DEVICE,
        crewId: by,
        at: new Date(at).toISOString(),
        data: { personId, ...data },
      } as PreflightEvent;
    };
    return [
      ...items.map((item) => made({ item }, "person.due-set")),
      ...works.map((work) => made({ work }, "person.done")),
    ];
  });
}
