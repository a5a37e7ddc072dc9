import { PILOT_IN_DATE } from "../airworthiness/people/pilot-in-date";
import { type Judgement, notAssessed } from "../judgement/judgement";
import type { DepartureDay } from "./departure-day";

/**
 * Whether the pilot is in date for this flight. The record tells neither which item it is nor until when: only the pilot, instructors
 * and administrators can see that.
 */
export function judgePilot({
  pilotInDate,
  ownUnknown,
}: Pick<DepartureDay, "pilotInDate" | "ownUnknown">): Judgement[] {
  if (pilotInDate === undefined || pilotInDate === "unjudged" || !PILOT_IN_DATE.includes(pilotInDate))
    // Without any of the pilot's data the limits are named already.
    return ownUnknown
      ? []
      : [
          {
            ...notAssessed(
              "unknown.pilot-in-date",
              "Pilot",
              "Not checked: nothing on file shows that you are in date for this flight.",
            ),
            cause: "unknown.pilot",
            action: "Check that you are in date for this flight, or enter it on your page.",
          },
        ];
  const made = { id: "pilot.in-date", scope: "day", subject: "Pilot", grade: pilotInDate } as const;
  if (pilotInDate === "within limits")
    return [{ ...made, sentence: "In date for this flight, by what is on file." }];
  return [
    {
      ...made,
      sentence:
        "Something of yours is not in date for this flight, or cannot be judged: your medical, a licence or rating, a review, recency or an authorisation.",
      action: "Your own page shows which. Nobody else sees it here.",
    },
  ];
}
