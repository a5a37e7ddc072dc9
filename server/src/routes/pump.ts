import { isName } from "@cravix/contract";
import { receiptCsv } from "@cravix/contract/logs";
import { FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import { and, eq } from "drizzle-orm";
import { Hono } from "hono";
import { number, object, string } from "yup";
import { callerOf } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { aircraft, aircraftType } from "../db/schema/fleet";
import { atMost } from "../middleware/body";
import { valid } from "../middleware/valid";
import { MAX_AT_ONCE_L, PUMP_ERRORS, Pump } from "../pump/pump";

const orderSchema = object({
  registration: string()
    .required()
    .max(20)
    .test("name", "a registration", (value) => isName(value ?? "")),
  tankId: string().max(120),
  litres: number().required().min(0.1).max(MAX_AT_ONCE_L),
  grade: string()
    .required()
    .oneOf(FUEL_GRADES.map((grade) => grade.id)),
  /** Receipt fault for lessons and tests; default: chosen by the pump. */
  trouble: string().oneOf(PUMP_ERRORS),
})
  .noUnknown("no other fields")
  .strict();

/** The simulated self-service pump. It knows what it delivered, not what is in the tank. */
export function pumpRoutes({ db }: Database, clock: () => Date) {
  const pump = new Pump();
  return new Hono()
    .get("/pump", (c) => c.json({ name: "Marram Point self-service", totalL: pump.totalL, unit: "L" }))
    .post(
      "/pump/deliveries",
      atMost("order"),
      valid("json", orderSchema, "The simulated pump does not accept this order."),
      async (c) => {
        const order = c.req.valid("json");
        const [row] = await db
          .select()
          .from(aircraft)
          .innerJoin(
            aircraftType,
            and(eq(aircraft.groupId, aircraftType.groupId), eq(aircraft.typeId, aircraftType.id)),
          )
          .where(
            and(eq(aircraft.groupId, callerOf(c).groupId), eq(aircraft.registration, order.registration)),
          );
        if (!row) return problem(c, 404, "This is not one of your group's aircraft.");
        const tanks = row.aircraft_type.body.fuel?.tanks ?? [];
        const tank = tanks.find((t) => t.id === order.tankId);
        if (order.tankId !== undefined && !tank)
          return problem(c, 422, "This aircraft has no such tank.", [
            {
              path: "tankId",
              expected:
                tanks.length > 0 ? `one of ${tanks.map((t) => t.id).join(", ")}` : "an aircraft with tanks",
            },
          ]);
        if (tank && order.litres > tank.capacityL)
          return problem(c, 422, "This is more than the tank holds.", [
            { path: "litres", expected: `at most ${tank.capacityL} L` },
          ]);
        const { trouble, tankId, ...rest } = order;
        const receipt = pump.deliver({ ...rest, ...(tankId && { tankId }) }, clock(), trouble);
        if (c.req.header("accept")?.includes("text/csv"))
          return c.body(receiptCsv(receipt), 201, { "content-type": "text/csv; charset=utf-8" });
        return c.json(receipt, 201);
      },
    );
}
