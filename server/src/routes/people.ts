import { can } from "@cravix/contract";
import { Hono } from "hono";
import { object } from "yup";
import { callerOf, knownCrew } from "../access/identity";
import { problem } from "../access/problem";
import { readPerson } from "../airworthiness/read-person";
import type { Database } from "../db/database";
import { valid } from "../middleware/valid";
import { named } from "./addresses";

const ofPerson = object({ person: named(120) });

/** Due items of a person, for them and with permission. */
export function peopleRoutes({ db }: Database, clock: () => Date) {
  return new Hono().get("/people/:person/due", valid("param", ofPerson), async (c) => {
    const { person } = c.req.valid("param");
    const { groupId, crewId } = callerOf(c);
    const crew = await knownCrew(db, groupId);
    const asks = crewId === undefined ? undefined : crew.get(crewId);
    if (!asks || (asks.id !== person && !can(asks, "person.others")))
      return problem(c, 403, "Only the person, instructors and administrators can see these due items.");
    if (!crew.has(person)) return problem(c, 404, "This person is not a member of the group.");
    return c.json(await readPerson(db, groupId, person, clock()));
  });
}
