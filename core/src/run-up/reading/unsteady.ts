import { formatNumber } from "../../units/format";
import { rpmScale } from "../run-up-profile";
import { JUMPS, jumpiness } from "./channel-means";
import { valuesBetween } from "./level-change";
import type { Context } from "./reading-context";
import type { RunUpReading } from "./run-up-reading";

/** Maximum scatter of a tachometer with steps of 25, rpm at 1,800; beyond it no drop is measurable (own estimate). */
const UNSTEADY_RPM = 24;

/** True if rpm was too unsteady to read the magnetos. */
export const isUnsteady = ({ notes }: Pick<RunUpReading, "notes">): boolean =>
  notes.some(({ kind }) => kind === "unsteady");

/** Marks all drops unreliable if rpm jumps while it should be steady; an engine that stops is still seen. */
export function doubtUnsteady(reading: RunUpReading, { trace, profile }: Context): void {
  const { base } = reading;
  if (!base) return;
  // A trend also scatters around its median, but not from sample to sample.
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
