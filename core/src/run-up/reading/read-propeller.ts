import { median } from "../../trend/median";
import { meanOf } from "./channel-means";
import type { FoundStep } from "./found-step";
import { valuesBetween } from "./level-change";
import { type Context, EVENLY, orNaN, rpmOf, runningMedian, sigmaOf } from "./reading-context";
import type { PropellerReading } from "./run-up-reading";

/** Reads a propeller cycle, step `i`: fall, response time, recovery, manifold pressure. rpm, seconds, inHg. */
export function readPropeller(ctx: Context, i: number): PropellerReading {
  const { trace, steps } = ctx;
  const step = steps[i] as FoundStep;
  const rpm = rpmOf(ctx);
  const before = valuesBetween(trace, rpm, step.at - 3, step.at - 0.1).y;
  const base = median(orNaN(before));
  const piece = valuesBetween(trace, rpm, step.at, step.until);
  // Half a second, and no more: in a coarse trace a short cycle has one or two samples.
  const smooth = runningMedian(piece.y, Math.round(0.2 / Math.max(ctx.clean.interval, 0.05)));
  let lowest = 0;
  smooth.forEach((value, at) => {
    if (value < (smooth[lowest] as number)) lowest = at;
  });
  const least = smooth[lowest] ?? base;
  // Between its lowest sample and the next it may have been lower.
  const beside = Math.max(smooth[lowest - 1] ?? least, smooth[lowest + 1] ?? least) - least;
  // Response time: from the start of the fall to half of it.
  const fallen = (part: number) => smooth.findIndex((value) => value < base - (base - least) * part);
  const begins = fallen(0.12);
  const half = fallen(0.5);
  const map = trace.channels.map;
  const mapRise = map
    ? Math.max(...orNaN(valuesBetween(trace, map, step.at, step.until).y)) -
      meanOf(trace, map, step.at - 3, step.at)
    : Number.NaN;
  const back = valuesBetween(trace, rpm, step.until - 2, step.until - 0.1).y;
  return {
    from: step.at,
    to: step.until,
    base,
    least,
    drop: base - least,
    dropSigma: Math.hypot(
      sigmaOf(before, ctx.grain),
      sigmaOf(piece.y.slice(Math.max(0, lowest - 2), lowest + 3), ctx.grain),
      beside / EVENLY,
    ),
    answeredIn:
      half >= 0 && begins >= 0 ? (piece.t[half] as number) - (piece.t[begins] as number) : Number.NaN,
    answeredInSigma: (ctx.clean.interval * Math.SQRT2) / EVENLY,
    ...(back.length >= 3 && { back: median(back) }),
    ...(!Number.isNaN(mapRise) && { mapRise }),
  };
}
