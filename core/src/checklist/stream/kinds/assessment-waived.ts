import type { EventHandler } from "../event-handler";

/** Only the pilot in command can decide to fly without an assessment. The latest decision on a subject counts. */
export const assessmentWaived: EventHandler<"assessment.waived"> = (
  preflight,
  { at, crewId, data },
  { pilot },
) => {
  if (crewId !== pilot) return;
  const { waived } = preflight.now;
  preflight.put({
    waived: {
      ...waived,
      ...Object.fromEntries(data.subjects.map((subject) => [subject, { why: data.why, at, crewId }])),
    },
  });
};
