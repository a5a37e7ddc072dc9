import type { MonitorOptions, PilotStep } from "@cravix/core/engine-model";
import type { TraceLine } from "@cravix/core/run-up";

/** Connection to an engine monitor. `tell` reaches the pilot of the simulated engine; a real pilot hears the prompt. */
export interface EngineMonitor {
  tell: (step: PilotStep) => void;
  close: () => void;
}

/** Interval for acknowledging samples, seconds of engine time. */
const HEARD_EVERY_S = 1;

interface Listener {
  onLines: (lines: TraceLine[]) => void;
  /** Reports that it does not respond or was lost. */
  onTrouble: (words: string) => void;
}

/**
 * Listens to the engine monitor relayed by the server; the one that ships is simulated. A lost connection is reported and
 * retried.
 */
export function listenLive(query: Record<string, string>, { onLines, onTrouble }: Listener): EngineMonitor {
  // Faster than real time the simulation waits for acknowledgements, or a slow page would be a minute behind.
  const quick = Number(query.speed ?? 1) > 1;
  const asked = new URLSearchParams({ ...query, ...(quick && { waits: "yes" }) });
  const source = new EventSource(`/api/v1/monitor/stream?${asked}`);
  let session: string | undefined;
  let heard = false;
  let said = 0;
  /** Position heard but not acknowledged yet. */
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
    // After earlier prompts: the engine must not run on before they arrive.
    before = before.then(() => {
      if (waiting === upTo) waiting = undefined;
      return post("heard", upTo);
    });
  };
  source.onerror = () => {
    // A reconnect would start another engine: keep what was received and report the loss.
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
      // In sequence, so that no prompt overtakes another.
      before = before.then(() => post("do", { step }));
    },
    close: () => source.close(),
  };
}

/** Practice with the engine simulated on this device. */
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
