import type { Item } from "@cravix/core/aircraft/aircraft-type";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";
import { airfield, qxTar, rules, tarrow4 } from "@cravix/demo";
import type { LoadedPreflight } from "../features/open-preflight/use-preflight";
import type { Acts } from "../features/open-preflight/use-preflight-actions";

const WALK = "0190a000-0000-7000-8000-000000000000";

/** A preflight of the trainer without a store: actions become events, and the preflight is folded again. */
export class TestPreflight {
  readonly list: ComposedList = composeList({
    type: tarrow4,
    aircraft: qxTar,
    conditions: [],
    openDiscrepancies: [],
    airfield,
    rules,
  });
  readonly events: PreflightEvent[] = [];
  #at: number;

  constructor(at = Date.UTC(2026, 4, 1, 9)) {
    this.#at = at;
    this.did("preflight.started", { registration: "QX-TAR", listHash: "h", conditions: [] });
  }

  did<T extends EventType>(type: T, data: EventData[T], afterMs = 4000): void {
    this.#at += afterMs;
    this.events.push({
      id: `e${String(this.events.length).padStart(6, "0")}`,
      type,
      streamId: WALK,
      deviceId: "device",
      crewId: "ines",
      at: new Date(this.#at).toISOString(),
      data,
    } as PreflightEvent);
  }

  get preflight(): LoadedPreflight {
    return { list: this.list, state: foldPreflight(WALK, this.events) } as LoadedPreflight;
  }

  item(id: string): Item {
    const found = this.list.items.find((item) => item.id === id);
    if (!found) throw new Error(`the trainer has no ${id}`);
    return found;
  }

  /** Actions for the hooks, recording like the real ones. */
  get acts(): Acts {
    return {
      sample: (item: Item, sample: EventData["sample.taken"]) =>
        this.did("sample.taken", { ...sample, itemId: item.id }),
      checked: (item: Item, value?: string) =>
        this.did("item.answered", { itemId: item.id, outcome: "checked", ...(value && { value }) }),
      rocked: () => this.did("wings.rocked", {}),
      interrupt: (cause: EventData["interrupted"]["cause"], since?: string) =>
        this.did("interrupted", { ...(cause && { cause }), ...(since && { since }) }),
    } as unknown as Acts;
  }
}
