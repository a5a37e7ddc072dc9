import { Monitor, type MonitorOptions, type PilotStep } from "@cravix/core/engine-model";

type Order =
  | { kind: "start"; options: MonitorOptions; speed: number }
  | { kind: "tell"; step: PilotStep }
  | { kind: "heard"; lines: number }
  | { kind: "stop" };

let monitor: Monitor | undefined;
let timer: ReturnType<typeof setInterval> | undefined;
/** Samples not acknowledged yet: the simulation waits for a slow page. */
let unheard = 0;
const TURN_MS = 100;
/** Maximum lead, as on the server. */
const AHEAD_S = 2.5;

/** Simulated engine on the device, for practice offline: sends samples like the server's monitor. */
self.onmessage = ({ data }: MessageEvent<Order>) => {
  switch (data.kind) {
    case "start": {
      clearInterval(timer);
      monitor = new Monitor(data.options);
      const perTurn = Math.max(1, Math.round((TURN_MS / 1000) * (data.options.hz ?? 10) * data.speed));
      const mostAhead = AHEAD_S * (data.options.hz ?? 10);
      unheard = 0;
      timer = setInterval(() => {
        if (!monitor || (unheard > 0 && unheard + perTurn > mostAhead)) return;
        unheard += perTurn;
        self.postMessage(Array.from({ length: perTurn }, () => monitor?.next()));
      }, TURN_MS);
      return;
    }
    case "heard":
      unheard -= data.lines;
      return;
    case "tell":
      monitor?.tell(data.step);
      return;
    case "stop":
      clearInterval(timer);
      monitor = undefined;
      return;
  }
};
