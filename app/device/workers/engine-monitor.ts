import type { MonitorOptions, PilotStep } from "@cravix/core/engine-model";
import type { TraceLine } from "@cravix/core/run-up";

/** A monitor that is listened to. `tell` reaches the pilot of a stand-in; a real pilot has ears. */
export interface EngineMonitor {
  tell: (step: PilotStep) => void;
  close: () => void;
}

/** How often it is said up to where it was heard, seconds of the engine. */
const HEARD_EVERY_S = 1;

interface Listener {
  onLines: (lines: TraceLine[]) => void;
  /** It does not answer, or was lost: in words. */
  onTrouble: (words: string) => void;
}

/** Listens to the engine monitor that the server relays; the one that ships is a stand-in. Where the line is lost it is said, and tried again. */
export function listenLive(query: Record<string, string>, { onLines, onTrouble }: Listener): EngineMonitor {
  // Faster than the clock it waits for who listens, or a page that is slow for a moment would be a minute late for its pilot.
  const quick = Number(query.speed ?? 1) > 1;
  const asked = new URLSearchParams({ ...query, ...(quick && { waits: "yes" }) });
  const source = new EventSource(`/api/v1/monitor/stream?${asked}`);
  let session: string | undefined;
  let heard = false;
  let said = 0;
  /** Up to where it was heard, where that has not gone out yet and its pilot was told nothing since. */
  let waiting: { t: number } | undefined;
  let before: Promise<unknown> = Promise.resolve();
  const post = (what: "do" | "heard", body: object) =>
    fetch(`/api/v1/monitor/${session}/${what}`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    }).catch(() => undefined);
  source.addEventListener("session", (event) => {
    session = (JSON.parse((event as MessageEvent<string>).data) as { id: string }).id;
  });
  source.onmessage = ({ data }: MessageEvent<string>) => {
    heard = true;
    const lines = JSON.parse(data) as TraceLine[];
    onLines(lines);
    const t = lines.at(-1)?.t ?? 0;
    if (!quick || !session || t - said < HEARD_EVERY_S) return;
    said = t;
    if (waiting) {
      waiting.t = t;
      return;
    }
    const upTo = { t };
    waiting = upTo;
    // Behind what its pilot was told before: the engine must not run on while that is still on its way.
    before = before.then(() => {
      if (waiting === upTo) waiting = undefined;
      return post("heard", upTo);
    });
  };
  source.onerror = () => {
    // A line that was lost would come back as another engine: what has been heard stays, and it is said.
    source.close();
    onTrouble(
      heard
        ? "The engine monitor stopped sending. The data received is saved. Enter the rest by hand, or start again."
        : "No data from the engine monitor. Enter the numbers by hand, load a file, or practise.",
    );
  };
  return {
    tell: (step) => {
      if (!session) return;
      waiting = undefined;
      // One after the other: what overtakes another would be done first.
      before = before.then(() => post("do", { step }));
    },
    close: () => source.close(),
  };
}

/** Practice with the stand-in on this device. */
export function listenPractice(
  options: MonitorOptions,
  speed: number,
  { onLines, onTrouble }: Listener,
): EngineMonitor {
  const worker = new Worker(new URL("./monitor.worker.ts", window.location.href));
  worker.onmessage = ({ data }: MessageEvent<TraceLine[]>) => {
    onLines(data);
    worker.postMessage({ kind: "heard", lines: data.length });
  };
  worker.onerror = (event) =>
    onTrouble(event.message || "The simulated engine does not start on this device.");
  worker.postMessage({ kind: "start", options, speed });
  return {
    tell: (step) => worker.postMessage({ kind: "tell", step }),
    close: () => worker.terminate(),
  };
}
