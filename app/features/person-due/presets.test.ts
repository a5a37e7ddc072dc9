import { checkEvent, newId } from "@cravix/contract";
import type { PersonDue } from "@cravix/core/airworthiness/people/person-due";
import { GIVEN_PRESETS, PRESETS } from "./presets";

const told = {
  date: "2027-03-31",
  class: "glider" as const,
  aircraft: ["QX-TAR", "QX-ANS"],
  name: "Übungsleiter (Segelflug)",
};
const taken = (item: PersonDue) => {
  const id = newId(Date.UTC(2026, 4, 1));
  return checkEvent(
    {
      id,
      type: "person.due-set",
      stream: "person",
      streamId: id,
      deviceId: id,
      crewId: "maren",
      at: "2026-05-01T09:00:00.000Z",
      data: { personId: "tomasz", item },
    },
    new Date("2026-05-01T10:00:00.000Z"),
  );
};

test.each(
  [...PRESETS, ...GIVEN_PRESETS].map((preset) => [preset.name, preset] as const),
)("%s is what the server takes", (_name, preset) => {
  expect(taken(preset.make(told))).toHaveProperty("event");
});

test("two ratings, and the same recency on two classes, are two items", () => {
  const [rating, passengers] = ["Licence or rating", "Passenger recency"].map(
    (name) => PRESETS.find((one) => one.name === name) as (typeof PRESETS)[number],
  );
  expect(rating?.make(told).id).toBe("ubungsleiter-segelflug");
  expect(rating?.make({ ...told, name: "教官" }).id).toBe("教官");
  expect(rating && taken(rating.make({ ...told, name: "教官" }))).toHaveProperty("event");
  expect(rating?.make({ ...told, name: "!" }).id).toBe("rating");
  expect(passengers?.make(told).id).not.toBe(passengers?.make({ ...told, class: "single-engine" }).id);
});
