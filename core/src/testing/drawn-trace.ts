import { traceOf } from "../run-up/index";
import { normalNumbers, seededRandom } from "../units/seeded-random";

/** Traces drawn stretch by stretch: the actions are common practice, and the true rpm is known exactly. */
export interface DrawnStretch {
  seconds: number;
  rpm: number;
  /** EGT relative to run-up, °F. */
  egt?: number;
  /** Final rpm of a stretch that climbs. */
  to?: number;
  /** Manifold pressure, inHg; 17 at run-up. */
  map?: number;
}

/**
 * Draws a trace of these stretches at a sampling interval; with manifold pressure if `map` is set; EGT probes lag by `probe`
 * seconds, rpm and EGT scatter by `noise`, deterministic per `seed`.
 */
export function drawnTrace(
  stretches: readonly DrawnStretch[],
  {
    every = 1,
    map = false,
    probe = 2.5,
    noise = 0,
    seed = 1,
  }: { every?: number; map?: boolean; probe?: number; noise?: number; seed?: number } = {},
) {
  const normal = normalNumbers(seededRandom(seed));
  const scatter = () => (noise > 0 ? noise * normal() : 0);
  const lines = [];
  let t = 0;
  let rpm = stretches[0]?.rpm ?? 0;
  let egt = 1150;
  const inner = 0.1;
  for (const stretch of stretches)
    for (let s = 0; s < stretch.seconds - 1e-9; s += inner) {
      const aim = stretch.rpm + ((stretch.to ?? stretch.rpm) - stretch.rpm) * (s / stretch.seconds);
      rpm += (aim - rpm) * (1 - Math.exp(-inner / 0.6));
      egt += (1320 + (stretch.egt ?? 0) - egt) * (1 - Math.exp(-inner / probe));
      t += inner;
      if (Math.round(t * 10) % Math.round(every * 10) !== 0) continue;
      // A tachometer in steps of five, with a deterministic pulse.
      lines.push({
        t: Number(t.toFixed(1)),
        rpm: Math.round((rpm + 3 * Math.sin(t * 2.3) + scatter()) / 5) * 5,
        ...(map && { map: stretch.map ?? (stretch.rpm < 1400 ? 12 : 17) }),
        egt: [0, 12, -9, 4].map((own) => Math.round(egt + own + scatter())),
        cht: [300, 310, 295, 305],
      });
    }
  return traceOf(lines as Parameters<typeof traceOf>[0]);
}
