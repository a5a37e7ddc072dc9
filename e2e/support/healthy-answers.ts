import { idMsecs, newId } from "@cravix/contract/new-id";
import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { currentItem } from "@cravix/core/checklist/next-item";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldPreflight } from "@cravix/core/checklist/stream/fold-preflight";

/** Interval between answers. */
const EACH_MS = 1500;

interface Asked {
  list: ComposedList;
  events: readonly PreflightEvent[];
  /** Item to stop at; absent: answer to the end. */
  goal: string | undefined;
  /** Instrument readings by key. */
  readings: Readonly<Record<string, string>>;
  facts: Readonly<Record<string, string>>;
}

/** Answers of a person who finds no problem, up to the goal, in the order asked. */
export function healthyAnswers({ list, events, goal, readings, facts }: Asked): PreflightEvent[] {
  const [first] = events;
  if (!first) throw new Error("no preflight was started");
  const { streamId, deviceId, crewId } = first;
  const made: PreflightEvent[] = [];
  let last = events.reduce((newest, event) => (event.id > newest ? event.id : newest), "");
  let at = Date.parse(events.at(-1)?.at ?? first.at);
  const put = <T extends EventType>(type: T, data: EventData[T]) => {
    at += EACH_MS;
    last = newId(idMsecs(last) + 1);
    made.push({
      id: last,
      type,
      streamId,
      deviceId,
      crewId,
      at: new Date(at).toISOString(),
      data,
    } as PreflightEvent);
  };
  const now = () => foldPreflight(streamId, [...events, ...made]);
  for (let asked = 0; asked < 2 * list.items.length; asked++) {
    const item = currentItem(list, now());
    if (!item || item.id === goal) return made;
    if (item.second && now().joined.length === 0) put("crew.joined", { crewId: "kofi" });
    answer(item, put, { list, readings, facts });
  }
  throw new Error(`did not reach ${goal}`);
}

type Put = <T extends EventType>(type: T, data: EventData[T]) => void;

function answer(
  item: Item,
  put: Put,
  { list, readings, facts }: Pick<Asked, "list" | "readings" | "facts">,
): void {
  const itemId = item.id;
  const asked = item.confirm ?? item.proof;
  const checked = (value?: string) =>
    put("item.answered", { itemId, outcome: "checked", ...(value !== undefined && { value }) });
  if (item.kind === "observe" && item.discrepancyId)
    put("discrepancy.observed", { discrepancyId: item.discrepancyId, itemId, state: "same" });
  else if (item.kind === "measure" && item.reading) {
    const { key, unit, feel } = item.reading;
    put("reading.taken", {
      itemId,
      key,
      value: Number(readings[key] ?? "0"),
      unit,
      ...(feel && { feel: "smooth" }),
    });
  } else if (item.kind === "sample") {
    const colour = list.type.fuel?.grades?.[0] === "100LL" ? ({ colour: "blue" } as const) : {};
    put("sample.taken", { itemId, look: "clean", ...colour, fate: "discarded" });
  } else if (item.kind === "pull") {
    for (let blade = 1; blade < (item.expected ?? 1); blade++) put("blade.pulled", { itemId, blade });
    checked(String(item.expected ?? 1));
  } else if (item.kind === "count") checked(String(item.expected));
  else if (item.kind === "choice") checked(item.choicesFrom === "runways" ? "24" : item.choices?.[0]?.value);
  else checked(asked ? facts[asked.fact] : undefined);
}
