import { newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";

export type Random = () => number;

const PEOPLE = ["ines", "maren", "kofi"];
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;

/**
 * Valid preflights of several people and devices: answers, readings, discrepancies, observations of others' discrepancies, undos,
 * signatures. Adds to `opened` the ids of discrepancies.
 */
export function makePreflight(random: Random, opened: string[], steps = 12): PreflightEvent[] {
  let at = Date.now() - 3_600_000 - Math.floor(random() * 86_400_000);
  const crewId = pick(random, PEOPLE);
  const streamId = newId(at);
  const deviceId = newId(at);
  const events: PreflightEvent[] = [];
  const write = <T extends EventType>(type: T, data: EventData[T], id?: string) => {
    at += 1000;
    const event = {
      id: id ?? newId(at),
      type,
      streamId,
      deviceId,
      crewId,
      at: new Date(at).toISOString(),
      data,
    };
    events.push(event as PreflightEvent);
    return event.id;
  };
  write(
    "preflight.started",
    {
      registration: pick(random, ["QX-TAR", "QX-HLD", "QX-LUM"]),
      listHash: `sha256:${"0".repeat(64)}`,
      conditions: random() < 0.5 ? ["night"] : [],
    },
    streamId,
  );
  for (let i = 0; i < steps; i++) {
    const dice = random();
    const itemId = `item.${Math.floor(random() * 30)}`;
    if (dice < 0.35) write("item.answered", { itemId, outcome: "checked" });
    else if (dice < 0.5)
      write("reading.taken", {
        itemId,
        key: "oil.level",
        value: Math.round(random() * 90) / 10,
        unit: "US qt",
      });
    else if (dice < 0.58)
      write("fuel.uplifted", {
        registration: "QX-TAR",
        tankId: "left",
        amount: 1 + Math.floor(random() * 60),
        unit: "L",
        from: "typed",
      });
    else if (dice < 0.7) {
      const id = newId(at + 1000);
      write(
        "discrepancy.opened",
        {
          discrepancyId: id,
          registration: "QX-TAR",
          stationId: "tail",
          itemId,
          text: "Skid worn",
          grade: pick(random, ["note", "watch", "ask", "stop"]),
        },
        id,
      );
      opened.push(id);
    } else if (dice < 0.85 && opened.length > 0)
      write("discrepancy.observed", {
        discrepancyId: pick(random, opened),
        itemId: "known",
        state: pick(random, ["same", "grown", "gone"]),
        measure: `${Math.floor(random() * 20)} mm`,
      });
    else if (events.length > 1) write("item.undone", { eventId: pick(random, events).id });
  }
  if (random() < 0.6) write("verdict.signed", { verdict: "go", decision: "fly", reasons: [] });
  return events;
}
