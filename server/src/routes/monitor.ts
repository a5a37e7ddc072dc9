import { isName } from "@cravix/contract";
import { shapeOf } from "@cravix/contract/simulated-engine";
import { traceCsv } from "@cravix/contract/trace";
import {
  FAULT_KINDS,
  type MonitorOptions,
  PILOT_STEPS,
  type SimulatedFault,
  simulateRunUp,
  usualPlan,
} from "@cravix/core/engine-model";
import { stationPressureHpa, traceOf } from "@cravix/core/run-up";
import { and, eq } from "drizzle-orm";
import { Hono } from "hono";
import { streamSSE } from "hono/streaming";
import { number, object, string } from "yup";
import { callerOf } from "../access/identity";
import { problem } from "../access/problem";
import type { Database } from "../db/database";
import { aircraft, aircraftType, airfield } from "../db/schema/fleet";
import { atMost } from "../middleware/body";
import { clientOf } from "../middleware/client";
import { valid } from "../middleware/valid";
import { AHEAD_S, Monitors } from "../monitor/monitors";

const orderSchema = object({
  registration: string()
    .required()
    .max(20)
    .test("name", "a registration", (value) => isName(value ?? "")),
  fault: string().oneOf(FAULT_KINDS).default("none"),
  side: string().oneOf(["right", "left"]).default("left"),
  cylinder: number().integer().min(1).max(18).default(1),
  severity: number().min(0).max(1).default(0.6),
  seed: number().integer().min(0).max(1_000_000).default(1),
  hz: number().min(1).max(10).default(10),
  /** Speed relative to real time, for lessons and tests. */
  speed: number().min(0.5).max(40).default(1),
  /** Whether the listener acknowledges positions from the first sample on. */
  waits: string().oneOf(["yes", "no"]).default("no"),
  celsius: number().min(-40).max(50).default(15),
  settingHpa: number().min(900).max(1085).default(1013.25),
  warm: string().oneOf(["yes", "no"]).default("yes"),
  /** With individual differences, rather than a textbook engine. */
  lifelike: string().oneOf(["yes", "no"]).default("no"),
}).noUnknown("no other fields");
type Order = ReturnType<typeof orderSchema.validateSync>;

const doSchema = object({ step: string().required().oneOf(PILOT_STEPS) })
  .noUnknown("no other fields")
  .strict();
const heardSchema = object({ t: number().required().min(0).max(1_000_000) })
  .noUnknown("no other fields")
  .strict();
const ofSession = object({ id: string().required().max(60) });
const NOT_KNOWN = "The simulated engine monitor does not accept this request.";

/** The simulated engine monitor with engine and pilot. A real one would send the same samples. */
export function monitorRoutes({ db }: Database, clock: () => Date) {
  const monitors = new Monitors();

  async function optionsFor(
    groupId: string,
    order: Order,
  ): Promise<MonitorOptions | { status: 404 | 422; detail: string }> {
    const [row] = await db
      .select()
      .from(aircraft)
      .innerJoin(
        aircraftType,
        and(eq(aircraft.groupId, aircraftType.groupId), eq(aircraft.typeId, aircraftType.id)),
      )
      .where(and(eq(aircraft.groupId, groupId), eq(aircraft.registration, order.registration)));
    if (!row) return { status: 404, detail: "This is not one of your group's aircraft." };
    const { runUp } = row.aircraft_type.body;
    const shape = shapeOf(row.aircraft_type.body);
    if (!runUp || !shape)
      return { status: 422, detail: `No engine with run-up data is on file for ${order.registration}.` };
    if (order.cylinder > shape.cylinders)
      return { status: 422, detail: `${order.registration} has only ${shape.cylinders} cylinders.` };
    const [field] = await db
      .select()
      .from(airfield)
      .where(and(eq(airfield.groupId, groupId), eq(airfield.id, row.aircraft.body.base)));
    return {
      shape,
      runUpRpm: runUp.rpm,
      clearRpm: runUp.clear.rpm,
      groundLeanRpm: runUp.groundLean.rpm,
      air: {
        pressureHpa: stationPressureHpa(order.settingHpa, field?.body.elevationFt ?? 0),
        celsius: order.celsius,
        humidity: 0.6,
      },
      fault: { kind: order.fault, side: order.side, cylinder: order.cylinder } as SimulatedFault,
      severity: order.severity,
      seed: order.seed,
      hz: order.hz,
      warm: order.warm === "yes",
      lifelike: order.lifelike === "yes",
    };
  }

  return new Hono()
    .get("/monitor/stream", valid("query", orderSchema, NOT_KNOWN), async (c) => {
      const order = c.req.valid("query");
      const options = await optionsFor(callerOf(c).groupId, order);
      if ("status" in options) return problem(c, options.status, options.detail);
      const session = monitors.open(options, clock().getTime(), clientOf(c));
      if (!session)
        return problem(c, 429, "Too many simulated engine monitors are running. Try again in a few minutes.");
      if (order.waits === "yes") monitors.heard(session.id, 0);
      return streamSSE(c, async (stream) => {
        stream.onAbort(() => monitors.close(session.id));
        try {
          await stream.writeSSE({ event: "session", data: JSON.stringify({ id: session.id }) });
          // Several samples per tick if faster than the timer.
          const perS = order.hz * order.speed;
          const batch = Math.max(1, Math.round(perS / 50));
          let from = performance.now();
          for (let sent = 0; !stream.aborted && !stream.closed; sent += batch) {
            const lines = Array.from({ length: batch }, () => session.monitor.next());
            await stream.writeSSE({ data: JSON.stringify(lines) });
            const due = from + ((sent + batch) / perS) * 1000;
            await stream.sleep(Math.max(1, due - performance.now()));
            const ahead = () => session.monitor.now - (session.heard ?? Number.POSITIVE_INFINITY) > AHEAD_S;
            // Idle too long: stopped.
            const runs = () =>
              !stream.aborted && !stream.closed && monitors.runs(session.id, clock().getTime());
            const waits = performance.now();
            while (order.speed > 1 && ahead() && runs()) await stream.sleep(5);
            // Time spent waiting is not caught up.
            from += performance.now() - waits;
            if (!runs()) break;
          }
        } finally {
          monitors.close(session.id);
        }
      });
    })
    .post(
      "/monitor/:id/do",
      atMost("order"),
      valid("param", ofSession),
      valid("json", doSchema, NOT_KNOWN),
      (c) => {
        const session = monitors.find(c.req.valid("param").id, clock().getTime());
        if (!session) return problem(c, 404, "This simulated engine monitor has stopped. Start a new one.");
        const { step } = c.req.valid("json");
        session.monitor.tell(step);
        return c.json({ told: step, at: session.monitor.now });
      },
    )
    .post(
      "/monitor/:id/heard",
      atMost("order"),
      valid("param", ofSession),
      valid("json", heardSchema, NOT_KNOWN),
      (c) =>
        monitors.heard(c.req.valid("param").id, c.req.valid("json").t)
          ? c.body(null, 204)
          : problem(c, 404, "This simulated engine monitor has stopped. Start a new one."),
    )
    .get("/monitor/run-up.csv", valid("query", orderSchema, NOT_KNOWN), async (c) => {
      const order = c.req.valid("query");
      const options = await optionsFor(callerOf(c).groupId, order);
      if ("status" in options) return problem(c, options.status, options.detail);
      const { samples } = simulateRunUp(options, usualPlan(options));
      return c.body(traceCsv(traceOf(samples)), 200, {
        "content-type": "text/csv; charset=utf-8",
        "content-disposition": `attachment; filename="run-up-${order.registration}.csv"`,
      });
    });
}
