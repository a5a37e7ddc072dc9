import { newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent } from "@cravix/core/checklist/stream/events";
import { NOW } from "./test-app";

/** Creates events of one preflight on one device, one second apart, ending before the tests' present. */
export type EventWriter = ReturnType<typeof eventWriter>;

export function eventWriter(crewId = "ines", startMsecs = NOW.getTime() - 3_600_000) {
  let at = startMsecs;
  const deviceId = newId(at);
  const streamId = newId(at);
  const write = <T extends EventType>(type: T, data: EventData[T]): PreflightEvent => {
    at += 1000;
    return {
      id: newId(at),
      type,
      streamId,
      deviceId,
      crewId,
      at: new Date(at).toISOString(),
      data,
    } as PreflightEvent;
  };
  return { streamId, write };
}

export const STARTED: EventData["preflight.started"] = {
  registration: "QX-TAR",
  listHash: `sha256:${"0".repeat(64)}`,
  conditions: [],
};

/** A small preflight: started, two answers, a reading, a discrepancy. */
export function smallPreflight(crewId = "ines", startMsecs?: number) {
  const { streamId, write } = eventWriter(crewId, startMsecs);
  const discrepancyId = newId(NOW.getTime() - 3_000_000);
  const events = [
    write("preflight.started", STARTED),
    write("item.answered", { itemId: "approach.stance", outcome: "checked" }),
    write("reading.taken", { itemId: "oil.level", key: "oil.level", value: 6.8, unit: "US qt" }),
    write("discrepancy.opened", {
      discrepancyId,
      registration: "QX-TAR",
      stationId: "left-gear",
      itemId: "left-gear.tyre",
      text: "Left tyre: cut in the shoulder",
      grade: "ask",
      measure: "8 mm",
    }),
  ];
  return { streamId, discrepancyId, events, write };
}
