import {
  type DeferralQuestion,
  type Deferrer,
  type DeferringRole,
  type MinimumEntry,
  maySignDeferral,
} from "@cravix/core/airworthiness/deferral/deferral-rules";
import { mayBeDeferred } from "@cravix/core/airworthiness/deferral/may-be-deferred";
import type { EventData } from "@cravix/core/checklist/stream/events";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import { and, eq, isNull, ne, sql } from "drizzle-orm";
import { effectiveRecord } from "../../airworthiness/effective-record";
import { readEquipment } from "../../airworthiness/read-airworthiness";
import { discrepancy } from "../../db/schema/discrepancy";
import { aircraft, airfield } from "../../db/schema/fleet";
import { readRules } from "../../fleet/read-rules";
import type { Admission, Fault } from "./event-kind";

type Row = typeof discrepancy.$inferSelect;
type Deferral = EventData["discrepancy.deferred"];

async function aircraftOf({ tx, groupId }: Admission, registration: string) {
  const [found] = await tx
    .select({ body: aircraft.body, field: airfield.body })
    .from(aircraft)
    .leftJoin(
      airfield,
      and(
        eq(airfield.groupId, aircraft.groupId),
        eq(airfield.id, sql`json_value(${aircraft.body}, '$.base')`),
      ),
    )
    .where(and(eq(aircraft.groupId, groupId), eq(aircraft.registration, registration)));
  return found;
}

/** Units of this equipment that other open discrepancies of the aircraft have deferred already. */
async function outAlready(
  { tx, groupId }: Admission,
  { id, registration }: Row,
  equipment: string,
): Promise<number> {
  const rows = await tx
    .select({ life: discrepancy.life })
    .from(discrepancy)
    .where(
      and(
        eq(discrepancy.groupId, groupId),
        eq(discrepancy.registration, registration),
        ne(discrepancy.id, id),
        isNull(discrepancy.closedAt),
        isNull(discrepancy.withdrawnAt),
        isNull(discrepancy.mergedInto),
      ),
    );
  return rows.reduce(
    (sum, { life }) => sum + (life?.deferred?.equipment === equipment ? (life.deferred.broken ?? 1) : 0),
    0,
  );
}

/** Everyone who may sign some deferral under these questions. */
const signers = (questions: readonly DeferralQuestion[]): Deferrer[] =>
  questions.flatMap(({ yes, no }) =>
    [yes, no].flatMap((step) => ("needs" in step && step.result === "deferrable" ? step.needs.signedBy : [])),
  );

const roleFault = (role: string | undefined, signedBy: readonly Deferrer[]): Fault | undefined =>
  role !== undefined && maySignDeferral(role as DeferringRole, signedBy)
    ? undefined
    : { field: "data", reason: `This deferral must be signed by ${[...new Set(signedBy)].join(" or ")}.` };

/** Why the last day is missing: the category of the minimum equipment list leaves it open. */
function dayFault(entry: MinimumEntry | undefined, rules: RuleSet, { until }: Deferral): Fault | undefined {
  if (!entry || until !== undefined) return undefined;
  const days = entry.days ?? rules.deferral?.categories?.find(({ id }) => id === entry.category)?.days;
  return days === undefined
    ? { field: "data.until", reason: `Category ${entry.category} has no days: enter the last day.` }
    : undefined;
}

/**
 * Why a deferral cannot be recorded: its rule set is not the aircraft's, the rules forbid it by data alone, too few units are left,
 * the wrong person signs it, or its end cannot be judged. Questions for a person are left to that person.
 */
export async function admitDeferral(
  admission: Admission,
  row: Row | undefined,
  data: Deferral,
): Promise<Fault | undefined> {
  if (!row) return undefined;
  const { tx, groupId, principal } = admission;
  if (data.reading) {
    const record = await effectiveRecord(tx, groupId, row.registration);
    if (!record?.meters.some(({ id }) => id === data.reading?.meter))
      return {
        field: "data.reading.meter",
        reason: `The aircraft has no meter called “${data.reading.meter}”.`,
      };
  }
  const found = await aircraftOf(admission, row.registration);
  const rules = found && (await readRules(tx, groupId, found.body.rules ?? found.field?.rules));
  if (!found || !rules?.deferral) return roleFault(principal.role, ["pilot", "instructor", "mechanic"]);
  if (data.rules !== rules.id)
    return {
      field: "data.rules",
      reason: `The aircraft's rule set is “${rules.id}”. Go through the deferral questions again.`,
    };
  const list = await readEquipment(tx, found.body.typeId, groupId);
  const equipment = list?.equipment.find(({ id }) => id === data.equipment);
  const byMechanic = data.deactivated !== undefined && equipment?.deactivateBy === "mechanic";
  const wrong = roleFault(principal.role, byMechanic ? ["mechanic"] : signers(rules.deferral.questions));
  if (wrong) return wrong;
  if (!list) return undefined;
  const entry = list.minimum?.find((one) => one.equipment === data.equipment);
  const late = dayFault(entry, rules, data);
  if (late) return late;
  if (data.equipment === undefined && row.itemId === null) return undefined;
  const outcome = mayBeDeferred({
    rules: rules.deferral,
    list,
    ...(data.equipment !== undefined && { equipmentId: data.equipment }),
    ...(row.itemId !== null && { itemId: row.itemId }),
    flight: data.for,
    found: row.openedAt.slice(0, 10),
    broken: data.broken ?? 1,
    out: data.equipment === undefined ? 0 : await outAlready(admission, row, data.equipment),
    built: String(found.body.year),
    ...(list.minimum && { minimum: list.minimum }),
  });
  if (outcome.result === "not deferrable")
    return {
      field: "data",
      reason:
        `This discrepancy cannot be deferred. ${outcome.why} ${outcome.trail.at(-1)?.because ?? ""}`.trim(),
    };
  const named = outcome.equipment;
  return named?.id === data.equipment
    ? undefined
    : {
        field: "data.equipment",
        reason: named
          ? `This discrepancy is about ${named.name}. Go through the deferral questions again.`
          : `The equipment list has no “${data.equipment}” that this discrepancy can be about.`,
      };
}
