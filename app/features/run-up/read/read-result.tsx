import { manualValuesFromTrace } from "@cravix/core/run-up-entry";
import { backToPreflight, type Desk, recordRead } from "../run-up-desk";
import { ReadPage } from "./read-page";
import type { ReadRunUp } from "./use-read-run-up";

/** Results of a measurement, and what to do next. */
export function ReadResult({ desk, read }: { desk: Desk; read: ReadRunUp }) {
  const { preflight, engine, reading, planted, state, step, wide } = desk;
  const { begin, forget, tell } = reading;
  return (
    <ReadPage
      preflight={preflight}
      engine={engine}
      read={read}
      planted={planted}
      guess={state.guess}
      wide={wide}
      onGuess={(guess) => step({ type: "guess", guess })}
      onTell={tell}
      onClear={() => {
        begin();
        step({ type: "clear the plug", practice: read.practice === true });
      }}
      onAgain={() => {
        begin();
        forget();
        step({ type: "another run-up" });
      }}
      onType={() => {
        begin();
        const known = manualValuesFromTrace(read.answer.reading, engine.profile.firstSide);
        step({ type: "complete by hand", known });
      }}
      onEmergency={() => step({ type: "emergency", card: "list" })}
      onDone={() => {
        recordRead(desk, read);
        backToPreflight(desk);
      }}
    />
  );
}
