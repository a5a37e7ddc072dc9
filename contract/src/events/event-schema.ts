import {
  EVENT_TYPES,
  type PreflightEvent,
  STREAM_EVENTS,
  STREAM_KINDS,
} from "@cravix/core/checklist/stream/events";
import { upgradeEvent } from "@cravix/core/legacy-vocabulary";
import { QuantityError } from "@cravix/core/units/convert";
import { assertPlausible } from "@cravix/core/units/plausible";
import { type ObjectSchema, object, string, ValidationError } from "yup";
import type { Refusal } from "../api/refusal";
import { CLOCK_TOLERANCE_MIN } from "../bounds/clock-tolerance";
import { key, utcTime } from "../bounds/fields";
import { boundsViolation, EVENT_BOUNDS } from "../bounds/measure-value";
import { isName } from "../bounds/plain-text";
import { eventDataSchema } from "./event-data-schema";
import { eventId } from "./event-fields";
import { quickCheck } from "./quick-check";

const envelope = {
  id: eventId(),
  streamId: eventId(),
  deviceId: eventId(),
  crewId: key(),
  at: utcTime().required(),
  deviceAt: utcTime(),
  stream: string().oneOf(STREAM_KINDS),
  type: string().required(),
};

const SCHEMAS = new Map<string, ObjectSchema<object>>(
  EVENT_TYPES.map((type) => [
    type,
    object({ ...envelope, data: eventDataSchema(type) })
      .noUnknown()
      .strict(),
  ]),
);

/** Yup explains faults but is slow; a fast check generated from its description accepts valid values. */
const QUICK = new Map([...SCHEMAS].map(([type, schema]) => [type, quickCheck(schema.describe())]));

export type EventCheck = { event: PreflightEvent } | { refusal: Omit<Refusal, "index"> };

/** No clock comes this far: a later id would leave no room for ids after it. */
const MAX_ID = Date.UTC(2200, 0).toString(16).padStart(12, "0").replace(/^.{8}/, "$&-");

/**
 * Validates an event. Never throws: an invalid one returns its id, the field and the reason, without repeating the input. Older
 * events are upgraded. `now` is the validator's clock; events more than ten minutes ahead are rejected.
 */
export function checkEvent(given: unknown, now: Date): EventCheck {
  const input = upgradeEvent(given);
  const id = idOf(input);
  const refuse = (reason: string, field?: string): EventCheck => ({
    refusal: { id, reason, ...(field && { field }) },
  });
  if (typeof input !== "object" || input === null || Array.isArray(input))
    return refuse("An event must be a JSON object.");
  const { type } = input as { type?: unknown };
  const schema = typeof type === "string" ? SCHEMAS.get(type) : undefined;
  if (!schema) return refuse("Unknown event type.", "type");
  if (!QUICK.get(type as string)?.(input)) {
    const beyond = boundsViolation(input, EVENT_BOUNDS);
    if (beyond) return refuse(`The event exceeds a size limit: ${beyond}.`, "data");
    try {
      schema.validateSync(input, { disableStackTrace: true });
    } catch (error) {
      if (error instanceof ValidationError)
        return refuse(error.errors[0] ?? error.message, error.path || undefined);
      // Values that cannot even be compared: only this event is rejected.
      return refuse("The values do not match the fields of this event type.", "data");
    }
  }
  const event = input as PreflightEvent;
  if (Date.parse(event.at) > now.getTime() + CLOCK_TOLERANCE_MIN * 60_000)
    return refuse(
      "The event is dated in the future: the device's clock is fast. Correct the clock, then send it again.",
      "at",
    );
  if (event.id > MAX_ID || event.streamId > MAX_ID)
    return refuse("The time in this id is too far in the future.", "id");
  const stream = event.stream ?? "preflight";
  if (!STREAM_EVENTS[stream].includes(event.type))
    return refuse(`This event type does not belong in a ${stream} record.`, "stream");
  const amount = amountOf(event);
  if (amount) {
    try {
      assertPlausible(amount.what, amount.value, amount.unit);
    } catch (error) {
      if (error instanceof QuantityError) return refuse(error.message, amount.field);
      throw error;
    }
  }
  return { event };
}

/** Amount in an event that an instrument or pump must be able to show. */
function amountOf(event: PreflightEvent) {
  if (event.type === "reading.taken") {
    const { value, unit, key: what } = event.data;
    return { what, value, unit, field: "data.value" };
  }
  if (event.type === "fuel.uplifted")
    return { what: "fuel", value: event.data.amount, unit: event.data.unit, field: "data.amount" };
  return undefined;
}

function idOf(input: unknown): string | null {
  const id = (input as { id?: unknown } | null)?.id;
  return typeof id === "string" && id.length <= 100 && isName(id) ? id : null;
}
