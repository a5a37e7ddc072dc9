import { and, eq, sql } from "drizzle-orm";
import { Hono } from "hono";
import { object, string } from "yup";
import { callerOf } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { airfield } from "../db/schema/fleet";
import { valid } from "../middleware/valid";
import { forecastOf, reportOf } from "../weather/simulated-station";

const stationParam = object({
  station: string()
    .required()
    .matches(/^[A-Z][A-Z0-9]{3}$/),
}).strict();

/** Simulated weather stations of the fields on file: METAR and TAF as text, as a real one would send. */
export function weatherRoutes({ db }: Database, clock: () => Date) {
  return new Hono().get("/weather/:station", valid("param", stationParam), async (c) => {
    const { station } = c.req.valid("param");
    const [row] = await db
      .select()
      .from(airfield)
      .where(
        and(
          eq(airfield.groupId, callerOf(c).groupId),
          eq(sql`json_value(${airfield.body}, '$.station')`, station),
        ),
      );
    if (!row) return problem(c, 404, "No airfield on file has a weather station with this identifier.");
    const { elevationFt, lat = 0, lon = 0 } = row.body;
    const place = { station, elevationFt, lat, lon };
    const now = clock();
    c.header("cache-control", "no-store");
    return c.json({
      station,
      simulated: true,
      report: reportOf(place, now),
      forecast: forecastOf(place, now),
    });
  });
}
