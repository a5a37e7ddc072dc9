import { kindOfItem } from "../../airworthiness/read-person";
import { subjectOf } from "../../record/lock-subjects";
import { type Admission, eventKind, type Fault } from "./event-kind";
import { futureDate } from "./plausible-readings";

const ofPerson = ({ data }: { data: { personId: string } }, groupId: string) => [
  subjectOf.person(groupId, data.personId),
];
const about = async ({ data }: { data: { personId: string } }) => ({ personId: data.personId });
const kind = ({ tx, groupId }: Admission, personId: string, item: string) =>
  kindOfItem(tx, groupId, personId, item);

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
