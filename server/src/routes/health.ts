import { Hono } from "hono";
import { problem } from "../access/problem";
import { type Database, databaseAnswers } from "../db/database";

/** 200 only if the database responds. */
export function healthRoutes(database: Database) {
  return new Hono().get("/health", async (c) =>
    (await databaseAnswers(database))
      ? c.json({ status: "ok", database: "answers" })
      : problem(
          c,
          503,
          "The database is not responding. Answers stay saved on the devices until it is back.",
        ),
  );
}
