import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { upsert } from "../db/upsert";
import { addedIn, type GroupProjection, type Row } from "./projection";

/** A table of events of aircraft whose rows follow from one event each: written as events are added, in any order. */
export function rowsOfEvents(
  name: GroupProjection["name"],
  toRows: (groupId: string, event: PreflightEvent) => Row[],
  own: Pick<GroupProjection, "version" | "stored" | "clear">,
): GroupProjection {
  const rows: GroupProjection["rows"] = (groupId, events) =>
    events.flatMap((event) => toRows(groupId, event));
  return {
    name,
    per: "group",
    kinds: ["aircraft"],
    write: (tx, batch) => upsert(tx, name, rows(batch.groupId, addedIn(batch, "aircraft"))),
    rows,
    insert: (tx, all) => upsert(tx, name, all),
    ...own,
  };
}
