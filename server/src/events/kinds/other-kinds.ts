import { planFaults } from "@cravix/core";
import { kindOfItem } from "../../airworthiness/read-person";
import { subjectOf } from "../lock-subjects";
import { type Admission, eventKind, type Fault } from "./event-kind";
import { futureDate } from "./plausible-readings";

const ofPerson = ({ data }: { data: { personId: string } }, groupId: string) => [
  subjectOf.person(groupId, data.personId),
];
const about = async ({ data }: { data: { personId: string } }) => ({ personId: data.personId });
const kind = ({ tx, groupId }: Admission, personId: string, item: string) =>
  kindOfItem(tx, groupId, personId, item);

export const FLIGHT_KINDS = {
  "flight.logged": eventKind("flight.logged", {
    subjects: ({ data }, groupId) => [subjectOf.aircraft(groupId, data.registration)],
    rows: ["flight_log", "meter_totals"],
  }),
  "flight.corrected": eventKind("flight.corrected", {
    subjects: ({ data }, groupId) => [subjectOf.aircraft(groupId, data.registration)],
    rows: ["flight_log", "meter_totals"],
  }),
};

export const PERSON_KINDS = {
  "person.due-set": eventKind("person.due-set", {
    subjects: ofPerson,
    before: (admission, { data }) => kind(admission, data.personId, data.item.id),
    subject: (_admission, event) => about(event),
    rows: ["person_entry"],
  }),
  "person.due-dropped": eventKind("person.due-dropped", {
    subjects: ofPerson,
    before: (admission, { data }) => kind(admission, data.personId, data.item),
    subject: (_admission, event) => about(event),
    rows: ["person_entry"],
  }),
  "person.done": eventKind("person.done", {
    subjects: ofPerson,
    before: (admission, { data }) => kind(admission, data.personId, data.work.item),
    subject: (_admission, event) => about(event),
    async admit({ now }, { data }): Promise<Fault | undefined> {
      const late = futureDate(data.work.date, now);
      return late ? { field: "data.work.date", reason: late } : undefined;
    },
    rows: ["person_entry"],
  }),
};

export const WORKSHOP_KINDS = {
  "workshop.planned": eventKind("workshop.planned", {
    subjects: (_event, groupId) => [subjectOf.plan(groupId)],
    async admit(_admission, { data }): Promise<Fault | undefined> {
      const [fault] = planFaults(data);
      return fault && { field: `data.${fault.path}`, reason: `Expected ${fault.expected}.` };
    },
    rows: ["workshop_plan"],
  }),
};
