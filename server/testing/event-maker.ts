import { newId } from "@cravix/contract";
import type { EventData, EventType, PreflightEvent, StreamKind } from "@cravix/core";

interface By {
  crewId?: string;
  stream?: StreamKind;
  streamId?: string;
}

/** Makes events of what is done outside of walks, one behind the other from a moment on; by the mechanic, of an aircraft, where nothing else is said. */
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
