import { Monitor, type MonitorOptions, type PilotStep } from "@cravix/core/engine-model";

type Order =
  | { kind: "start"; options: MonitorOptions; speed: number }
  | { kind: "tell"; step: PilotStep }
  | { kind: "stop" };

let monitor: Monitor | undefined;
let timer: ReturnType<typeof setInterval> | undefined;
const TURN_MS = 100;

/** The stand-in engine on the device itself, for practice without a network: it sends lines as the monitor on the server does. */
self.onmessage = ({ data }: MessageEvent<Order>) => {
  switch (data.kind) {
    case "start": {
      clearInterval(timer);
      monitor = new Monitor(data.options);
      const perTurn = Math.max(1, Math.round((TURN_MS / 1000) * (data.options.hz ?? 10) * data.speed));
      timer = setInterval(() => {
        if (monitor) self.postMessage(Array.from({ length: perTurn }, () => monitor?.next()));
      }, TURN_MS);
      return;
    }
    case "tell":
      monitor?.tell(data.step);
      return;
    case "stop":
      clearInterval(timer);
      monitor = undefined;
      return;
  }
};
