import { newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent, StreamKind } from "@cravix/core/checklist/stream/events";

interface By {
  crewId?: string;
  stream?: StreamKind;
  streamId?: string;
}

/** Creates events outside preflights, one second apart from a start time; by default by the mechanic, for an aircraft. */
export function eventMaker(from: number) {
  let at = from;
  return <T extends EventType>(
    type: T,
    data: EventData[T],
    { crewId = "kofi", stream = "aircraft", streamId }: By = {},
  ): PreflightEvent => {
    at += 1000;
    const id = newId(at);
    return {
      id,
      type,
      stream,
      streamId: streamId ?? id,
      deviceId: newId(at),
      crewId,
      at: new Date(at).toISOString(),
      data,
    } as PreflightEvent;
  };
}
