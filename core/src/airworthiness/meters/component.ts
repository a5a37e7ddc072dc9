import { QuantityError } from "../../units/convert";
import { formatNumber } from "../../units/format";
import { roundMeter } from "./meter";

/** Hours or counts by meter id. */
export type Totals = Readonly<Record<string, number>>;

/** A part with its own life that can move between aircraft. */
export interface Component {
  id: string;
  name: string;
  /** Kind: "engine", "propeller", "tow hook". */
  kind: string;
  serial?: string;
  /** Totals when its record here begins, by the meters it counts. */
  sinceNew: Totals;
  /** The same since its last overhaul; absent if it never had one. */
  sinceOverhaul?: Totals;
}

/** A component on an aircraft: date and aircraft totals when fitted and when removed. */
export interface Fitting {
  component: string;
  registration: string;
  /** Position on the aircraft, "left engine". */
  position?: string;
  on: { at: string; totals: Totals };
  off?: { at: string; totals: Totals };
}

/** One overhaul of a component, by its own totals since new. */
export interface Overhaul {
  at: string;
  sinceNew: Totals;
}

/**
 * Totals of a component since new, by meter: its initial totals plus what each aircraft flew while it was fitted. `now` are the
 * current totals of the aircraft it is fitted to. Covers only meters the component counts. Throws QuantityError if it was removed
 * at lower totals than when fitted, or if the aircraft's totals are lower than that now.
 * Source: arithmetic.
 */
export function componentTotals(component: Component, fittings: readonly Fitting[], now: Totals): Totals {
  const own = fittings.filter((fitting) => fitting.component === component.id);
  return Object.fromEntries(
    Object.entries(component.sinceNew).map(([meter, start]) => [
      meter,
      roundMeter(
        own.reduce((sum, { on, off }) => {
          const from = on.totals[meter];
          const to = (off?.totals ?? now)[meter];
          if (from === undefined || to === undefined) return sum;
          if (to < from - 1e-9)
            throw new QuantityError(
              off
                ? `${component.name}: the reading at removal is lower than at fitting. Check both.`
                : `${component.name} was fitted at ${formatNumber(from, 1)}, but the aircraft has only ${formatNumber(to, 1)}. Check the fitting and the technical log.`,
            );
          return sum + to - from;
        }, start),
      ),
    ]),
  );
}

/** Totals since the last overhaul; since new if there was none. */
export function sinceOverhaul(
  component: Component,
  total: Totals,
  overhauls: readonly Overhaul[] = [],
): Totals {
  const last = [...overhauls].sort((a, b) => a.at.localeCompare(b.at)).at(-1);
  const begin = last?.sinceNew;
  return Object.fromEntries(
    Object.entries(total).map(([meter, value]) => {
      if (begin) return [meter, roundMeter(value - (begin[meter] ?? 0))];
      const before = component.sinceOverhaul?.[meter];
      const start = component.sinceNew[meter] ?? 0;
      return [meter, before === undefined ? value : roundMeter(before + value - start)];
    }),
  );
}

/** Faults in component locations: on two aircraft at once, two in one position, removed before fitted. */
export function fittingFaults(fittings: readonly Fitting[]): string[] {
  const faults: string[] = [];
  const end = ({ off }: Fitting) => off?.at ?? "9999";
  for (const [i, one] of fittings.entries()) {
    if (one.off && one.off.at < one.on.at)
      faults.push(
        `${one.component} was removed from ${one.registration} before it was fitted. Check the dates.`,
      );
    for (const other of fittings.slice(i + 1)) {
      const together = one.on.at < end(other) && other.on.at < end(one);
      if (!together) continue;
      if (one.component === other.component)
        faults.push(
          `${one.component} is on ${one.registration} and on ${other.registration} at the same time.`,
        );
      else if (one.registration === other.registration && one.position && one.position === other.position)
        faults.push(`${one.component} and ${other.component} are both fitted as ${one.position}.`);
    }
  }
  return faults;
}
