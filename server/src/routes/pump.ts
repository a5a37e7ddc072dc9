import { receiptCsv } from "@cravix/contract/logs";
import { FUEL_GRADES } from "@cravix/core";
import { eq } from "drizzle-orm";
import { Hono } from "hono";
import { number, object, string, ValidationError } from "yup";
import type { Database } from "../db/database";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { problem } from "../problem";
import { MOST_AT_ONCE_L, PUMP_TROUBLES, Pump } from "../pump/pump";

const orderSchema = object({
  registration: string().required().max(20),
  tankId: string().max(120),
  litres: number().required().min(0.1).max(MOST_AT_ONCE_L),
  grade: string()
    .required()
    .oneOf(FUEL_GRADES.map((grade) => grade.id)),
  /** What goes wrong with the paper, for lessons and tests; without it the pump decides. */
  trouble: string().oneOf(PUMP_TROUBLES),
}).noUnknown();

/** The simulated self-service pump on the apron. It knows what it gave, not what arrived in the tank. */
export function pumpRoutes({ db }: Database, clock: () => Date) {
  const pump = new Pump();
  return new Hono()
    .get("/pump", (c) => c.json({ name: "Marram Point self-service", totalL: pump.totalL, unit: "L" }))
    .post("/pump/deliveries", async (c) => {
      let body: unknown;
      try {
        body = await c.req.json();
      } catch {
        return problem(c, 400, "The order must be JSON.");
      }
      try {
        const order = await orderSchema.validate(body, { strict: true, abortEarly: false });
        const [row] = await db
          .select()
          .from(aircraft)
          .innerJoin(aircraftType, eq(aircraft.typeId, aircraftType.id))
          .where(eq(aircraft.registration, order.registration));
        if (!row) return problem(c, 404, `There is no aircraft ${order.registration} in the group.`);
        const tanks = row.aircraft_type.body.fuel?.tanks ?? [];
        const tank = tanks.find((t) => t.id === order.tankId);
        if (order.tankId !== undefined && !tank)
          return problem(c, 422, "There is no such tank.", [
            {
              path: "tankId",
              expected:
                tanks.length > 0 ? `one of ${tanks.map((t) => t.id).join(", ")}` : "an aircraft with tanks",
            },
          ]);
        if (tank && order.litres > tank.capacityL)
          return problem(c, 422, "More than the tank holds.", [
            { path: "litres", expected: `at most ${tank.capacityL}` },
          ]);
        const { trouble, tankId, ...rest } = order;
        const receipt = pump.deliver({ ...rest, ...(tankId && { tankId }) }, clock(), trouble);
        if (c.req.header("accept")?.includes("text/csv"))
          return c.body(receiptCsv(receipt), 201, { "content-type": "text/csv; charset=utf-8" });
        return c.json(receipt, 201);
      } catch (error) {
        if (!(error instanceof ValidationError)) throw error;
        const faults = error.inner.length > 0 ? error.inner : [error];
        return problem(
          c,
          422,
          "The pump does not take this order.",
          faults.map((f) => ({ path: f.path ?? "", expected: f.errors[0] ?? f.message })),
        );
      }
    });
}
