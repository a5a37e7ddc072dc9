import { type ComponentSnapshot, componentAsItIs, type PreflightEvent } from "@cravix/core";
import { and, eq, isNotNull } from "drizzle-orm";
import type { Db, Tx } from "../db/database";
import { fromDb, toDb } from "../db/moment";
import { componentMove, workDone } from "../db/schema/airworthiness";
import { upsert } from "../db/upsert";
import { effectiveRecord } from "./effective-record";

/** Writes removed and fitted components; a removed one goes into storage as it was. */
export async function projectMoves(tx: Tx, groupId: string, added: readonly PreflightEvent[]): Promise<void> {
  for (const event of [...added].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    if (event.type === "component.removed") {
      const { registration, component, totals } = event.data;
      const record = await effectiveRecord(tx, groupId, registration);
      const released = await tx
        .select({ work: workDone.work })
        .from(workDone)
        .where(
          and(
            eq(workDone.groupId, groupId),
            eq(workDone.registration, registration),
            isNotNull(workDone.work),
          ),
        );
      const as =
        record &&
        componentAsItIs(
          record,
          component,
          totals,
          released.flatMap(({ work }) => work ?? []),
        );
      await write(tx, groupId, event, component, as);
    } else if (event.type === "component.fitted") {
      const { component, items, works } = event.data;
      await write(tx, groupId, event, component.id, { component, items, works });
    }
  }
}

type Move = Extract<PreflightEvent, { type: "component.removed" | "component.fitted" }>;

async function write(
  tx: Tx,
  groupId: string,
  { id, at, type, data }: Move,
  component: string,
  as: ComponentSnapshot | undefined,
): Promise<void> {
  await upsert(tx, "component_move", [
    {
      id,
      group_id: groupId,
      registration: data.registration,
      component,
      at: toDb(at),
      fitted: type === "component.fitted" ? 1 : 0,
      position: "position" in data ? (data.position ?? null) : null,
      totals: JSON.stringify(data.totals),
      as_it_is: as ? JSON.stringify(as) : null,
    },
  ]);
}

/** A component in storage: snapshot, aircraft, time. */
export type OnShelf = ComponentSnapshot & { from: string; at: string };

/** Components removed and not fitted since. */
export async function readShelf(db: Db | Tx, groupId: string): Promise<OnShelf[]> {
  const rows = await db.select().from(componentMove).where(eq(componentMove.groupId, groupId));
  const last = new Map<string, (typeof rows)[number]>();
  for (const row of rows.sort((a, b) => (a.id < b.id ? -1 : 1)))
    last.set(row.as?.component.id ?? row.component, row);
  return [...last.values()].flatMap(({ fitted, as, registration, at }) =>
    fitted || !as ? [] : [{ ...as, from: registration, at: fromDb(at) }],
  );
}
