import { cylindersOf, type Trace } from "../../trace/trace";
import { median } from "../../trend/median";
import { jumpiness, meanOf } from "./channel-means";
import { valuesBetween } from "./level-change";
import type { Plateau } from "./plateaus";

/** What the other instruments show during a stretch, compared with the base and with just before. Absent: not measured. */
export interface Signature {
  /** Change of EGT since the base, median of the cylinders, °F. */
  egt?: number;
  /** Largest fall of one cylinder relative to the others, °F, negative. */
  fall?: number;
  /** Change of manifold pressure since the base. */
  map?: number;
  /** Change of EGT since the previous stretch, median of the cylinders, °F. */
  since?: number;
}

/** Last seconds of a stretch that give its EGT, and of the base that give the reference. */
const END_S = 1.2;
const BASE_END_S = 2;
/** A probe that jumps more than this from sample to sample says nothing about its cylinder, °F. */
const NOISY_PROBE_F = 20;
/** Time for a slow probe to settle, seconds. Source: probes of two to five seconds (common practice). */
const PROBE_S = 4;
/** After this long at base EGT is fully settled, seconds. */
const WARM_S = 15;

/** Signature of a stretch; empty without a base. Complexity: O(samples of the stretch and the base × cylinders). */
export function signatureOf(
  trace: Trace,
  plateau: Plateau,
  base: Plateau | undefined,
  last: Plateau | undefined,
): Signature {
  if (!base) return {};
  const changes: number[] = [];
  const sinceLast: number[] = [];
  for (const i of cylindersOf(trace, "egt")) {
    const values = trace.channels[`egt${i}`] as Float64Array;
    if (jumpiness(valuesBetween(trace, values, base.from, base.to).y) > NOISY_PROBE_F) continue;
    const change = changeSince(trace, values, plateau, base);
    // An expected change is no sign of getting hotter, nor its absence of getting cooler.
    if (!Number.isNaN(change))
      changes.push(change > 0 ? Math.max(0, change - stillToCome(trace, values, base)) : change);
    const since = last ? endOf(trace, values, plateau) - endOf(trace, values, last) : Number.NaN;
    if (!Number.isNaN(since)) sinceLast.push(since);
  }
  const map = trace.channels.map && changeSince(trace, trace.channels.map, plateau, base);
  const egt = changes.length > 0 ? median(changes) : undefined;
  return {
    ...(egt !== undefined && { egt, fall: Math.min(...changes) - egt }),
    ...(map !== undefined && !Number.isNaN(map) && { map }),
    ...(sinceLast.length > 0 && { since: median(sinceLast) }),
  };
}

const endOf = (trace: Trace, values: Float64Array, { to }: Plateau): number =>
  meanOf(trace, values, to - END_S, to);

const changeSince = (trace: Trace, values: Float64Array, plateau: Plateau, base: Plateau): number =>
  endOf(trace, values, plateau) - meanOf(trace, values, Math.max(base.from, base.to - BASE_END_S), base.to);

/**
 * Remaining rise of a probe at the end of the base, °F: shortly after reaching run-up power, a further rise is no sign of a new
 * step.
 */
function stillToCome(trace: Trace, values: Float64Array, { onset, to }: Plateau): number {
  if (to - onset > WARM_S) return 0;
  const rise = meanOf(trace, values, to - 1.6, to) - meanOf(trace, values, to - 3.6, to - 2);
  return Number.isNaN(rise) ? 0 : Math.max(0, rise / 2) * PROBE_S;
}
