import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import type { Judgement } from "../../judgement/judgement";

/** Judges a device clock that is behind the log's last entry. Never throws: a clock that went back is reported. */
export function judgeClock(list: ComposedList, state: PreflightState): Judgement[] {
  const last = [list.memory?.hours?.at, list.memory?.fuel?.since].reduce(
    (late, at) => (at !== undefined && (late === undefined || at > late) ? at : late),
    undefined,
  );
  if (!last || !state.startedAt || state.startedAt >= last) return [];
  return [
    {
      id: "clock",
      subject: "Device clock",
      scope: "day",
      grade: "ask",
      sentence: `This device shows ${state.startedAt.slice(0, 16).replace("T", " ")}, but the last log entry is ${last.slice(0, 16).replace("T", " ")}.`,
      action: "Set the clock. Until then the order of fuel and flights is not certain.",
    },
  ];
}
