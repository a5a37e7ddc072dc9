import { type EventKind, eventKind } from "./event-kind";

/** Tables that follow from a preflight, or from fuel and oil outside one. */
const ROWS = ["preflight", "reading", "fluid_log"] as const;
const plain = { rows: ROWS };

/** Events of a preflight: nothing on record decides whether they are admitted. */
export const PREFLIGHT_KINDS = {
  "preflight.started": eventKind("preflight.started", { rows: [...ROWS, "discrepancy"] }),
  "item.answered": eventKind("item.answered", plain),
  "item.postponed": eventKind("item.postponed", plain),
  "item.visited": eventKind("item.visited", plain),
  // An undone observation no longer counts for its discrepancy.
  "item.undone": eventKind("item.undone", { rows: [...ROWS, "discrepancy"] }),
  "station.flowed": eventKind("station.flowed", plain),
  "crew.joined": eventKind("crew.joined", plain),
  "crew.left": eventKind("crew.left", plain),
  "reading.taken": eventKind("reading.taken", plain),
  "sample.taken": eventKind("sample.taken", plain),
  "wings.rocked": eventKind("wings.rocked", plain),
  "fuel.uplifted": eventKind("fuel.uplifted", plain),
  "fuel.told": eventKind("fuel.told", plain),
  "load.told": eventKind("load.told", plain),
  "weather.told": eventKind("weather.told", plain),
  "briefing.given": eventKind("briefing.given", plain),
  "oil.added": eventKind("oil.added", plain),
  "run-up.read": eventKind("run-up.read", plain),
  "blade.pulled": eventKind("blade.pulled", plain),
  "assessment.waived": eventKind("assessment.waived", plain),
  interrupted: eventKind("interrupted", plain),
  resumed: eventKind("resumed", plain),
  // A signature and a start change what may be undone.
  "verdict.signed": eventKind("verdict.signed", { rows: [...ROWS, "discrepancy"] }),
} satisfies Partial<{ [T in Parameters<typeof eventKind>[0]]: EventKind<T> }>;
