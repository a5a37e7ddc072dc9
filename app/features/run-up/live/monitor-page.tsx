import type { Observation } from "@cravix/core/diagnosis";
import { clearSequence, coachSequence, type Mark, type Trace } from "@cravix/core/run-up";
import { sideNames } from "@cravix/core/run-up-entry";
import { EntryPage } from "../entry-page";
import { type Desk, engineSuffix, readMeasured } from "../run-up-desk";
import type { RunUpPage } from "../run-up-pages";
import { LiveRunUp } from "./live-run-up";
import { monitorOf } from "./monitor-of";

/** A run-up from the monitor, coached; or the clearing of a plug. */
export function MonitorPage({ desk, page }: { desk: Desk; page: Extract<RunUpPage, { name: "monitor" }> }) {
  const { preflight, engine, state, step, planted, wide } = desk;
  const { profile } = engine;
  const { practice } = page;
  const clearing = page.listening !== "run-up";
  const { registration } = preflight.list;
  const end = (how: string, trace: Trace | undefined, marks: Mark[], side?: "right" | "left") => {
    if (!trace) {
      step({ type: "measured" });
      return;
    }
    if (how === "no drop" && side) step({ type: "emergency", card: { id: "no drop", side, practice } });
    if (how === "stopped" && side) step({ type: "emergency", card: { id: "stops on one", side, practice } });
    const told = how === "no drop" && side ? [turnedTo(side, sideNames(profile)[side])] : [];
    void readMeasured(desk, { trace, source: "monitor", marks, told });
  };
  const listen = monitorOf(preflight, engine, planted, { practice, round: state.round, cold: planted.cold });
  if (!listen) return <EntryPage desk={desk} page={page} />;
  return (
    <LiveRunUp
      title={clearing ? `${registration}: clear the plug` : `${registration}${engineSuffix(desk)}`}
      profile={profile}
      wide={wide}
      practice={practice}
      sequence={(warm) =>
        clearing ? clearSequence(profile) : coachSequence(profile, { lean: engine.lean, warm })
      }
      listen={listen}
      onEnd={end}
      onEmergency={() => step({ type: "emergency", card: "list" })}
    />
  );
}

const turnedTo = (side: "right" | "left", name: string): Observation => ({
  feature: "turned",
  state: "confirmed",
  side,
  words: `Confirmed: the ignition was on ${name}.`,
});
