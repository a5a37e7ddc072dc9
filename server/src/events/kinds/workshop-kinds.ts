import { planFaults } from "@cravix/core/airworthiness/plan/workshop-plan";
import { subjectOf } from "../../record/lock-subjects";
import { eventKind, type Fault } from "./event-kind";

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
