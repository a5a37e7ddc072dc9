import { Monitor, type MonitorOptions, type PilotStep } from "@cravix/core/engine-model";

type Order =
  | { kind: "start"; options: MonitorOptions; speed: number }
  | { kind: "tell"; step: PilotStep }
  | { kind: "heard"; lines: number }
  | { kind: "stop" };

let monitor: Monitor | undefined;
let timer: ReturnType<typeof setInterval> | undefined;
/** Lines that were sent and not yet heard: a page that is slow for a moment is waited for, and not late for its pilot. */
let unheard = 0;
const TURN_MS = 100;
/** As far as the one on the server: one turn where that is more. */
const AHEAD_S = 2.5;

/** The stand-in engine on the device itself, for practice without a network: it sends lines as the monitor on the server does. */
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
