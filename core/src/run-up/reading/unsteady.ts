import { formatNumber } from "../../units/format";
import { rpmScale } from "../run-up-profile";
import { JUMPS, jumpiness } from "./label-plateaus";
import { valuesBetween } from "./level-change";
import type { Context } from "./reading-context";
import type { RunUpReading } from "./run-up-reading";

/** A tachometer in steps of 25 scatters by no more than this, rpm at 1,800; what jumps further about a level that stands shows no drop (own estimate). */
const UNSTEADY_RPM = 24;

/** Whether the rpm jumped too much for anything to be read of the magnetos. */
export const isUnsteady = ({ notes }: Pick<RunUpReading, "notes">): boolean =>
  notes.some(({ kind }) => kind === "unsteady");

/** Where the rpm jumps about while it should stand, no drop is a measure and no side is read; an engine that stops is seen all the same. */
export function doubtUnsteady(reading: RunUpReading, { trace, profile }: Context): void {
  const { base } = reading;
  if (!base) return;
  // What falls or climbs scatters about its middle too, but not from line to line.
  const jumps =
    jumpiness(valuesBetween(trace, trace.channels.rpm as Float64Array, base.from, base.to).y) / JUMPS;
  const sigma = Math.min(base.sigma, jumps);
  if (sigma <= UNSTEADY_RPM * rpmScale(profile)) return;
  const doubt = "Rpm too unsteady to read.";
  for (const made of reading.tries) {
    if (made.feel === "quit") continue;
    made.doubt ??= doubt;
    if (reading[made.side] === made) delete reading[made.side];
  }
  if (reading.heat) reading.heat.doubt ??= doubt;
  reading.notes.push({
    kind: "unsteady",
    sentence: `Rpm varies by ${formatNumber(10 * Math.round(sigma / 5))} or more when it should be steady, so no drop can be read. Read the tachometer and enter the numbers.`,
  });
}
