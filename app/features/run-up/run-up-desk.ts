import type { RunUpEngine } from "@cravix/core/run-up-entry";
import type { Dispatch } from "react";
import { goBack } from "../../ui/go-back";
import type { LoadedPreflight } from "../open-preflight";
import type { useTypedRunUp } from "./manual/use-manual-run-up";
import type { SimulatedFaultChoice } from "./practice/simulated-fault";
import { engineWithAnswers, type Measured, type ReadRunUp, type useReadRunUp } from "./read/use-read-run-up";
import { forTheRecord, type useRecordRunUp } from "./read/use-record";
import type { RunUpState, RunUpStep } from "./run-up-pages";

/** What every page of the run-up works with. */
export interface Desk {
  preflight: LoadedPreflight;
  engine: RunUpEngine;
  state: RunUpState;
  step: Dispatch<RunUpStep>;
  planted: SimulatedFaultChoice;
  wide: boolean;
  hand: ReturnType<typeof useTypedRunUp>;
  reading: ReturnType<typeof useReadRunUp>;
  write: ReturnType<typeof useRecordRunUp>;
}

export const backToPreflight = ({ preflight }: Desk): void => goBack(`/preflight/${preflight.state.id}`);

/** True while the monitor plays a practice engine, and for its results. */
export const isPractice = ({ state: { page }, reading: { read } }: Desk): boolean =>
  page.name === "monitor" ? page.practice : page.name === "sources" && read?.practice === true;

/** Reads a measurement and shows the results. */
export async function readMeasured(desk: Desk, measured: Measured): Promise<void> {
  const { page } = desk.state;
  const listening = page.name === "monitor" ? page.listening : undefined;
  await desk.reading.take({
    ...measured,
    ...(isPractice(desk) && { practice: true }),
    ...(listening === "after clearing" && { remedy: "cleared" }),
    ...(listening === "clearing alone" && { cleared: true }),
  });
  desk.step({ type: "measured" });
}

/** Records a run-up; practice is never recorded. */
export function recordRead({ preflight, engine, write }: Desk, read: ReadRunUp): void {
  if (read.practice) return;
  write(forTheRecord(preflight, engineWithAnswers(engine, read), read.answer, read.trace, read.source));
}

/** ", left engine" for an aircraft with several; "" otherwise. */
export const engineSuffix = ({ engine }: Pick<Desk, "engine">): string =>
  engine.name ? `, ${engine.name} engine` : "";
