import { QuantityError } from "../../units/convert";
import { roundMeter } from "./meter";

/** Times and counts by the meter's id, hours or a count. */
export type Totals = Readonly<Record<string, number>>;

/** A part with a life of its own, that can move from one aircraft to another. */
export interface Component {
  id: string;
  name: string;
  /** What it is, "engine", "propeller", "tow hook". */
  kind: string;
  serial?: string;
  /** What it had when its record here begins, by the meters that it counts. */
  sinceNew: Totals;
  /** The same since its last overhaul; absent where it never had one. */
  sinceOverhaul?: Totals;
}

/** A component on an aircraft: from when, and the aircraft's totals then; where it came off, until when, and the totals then. */
export interface Fitting {
  component: string;
  registration: string;
  /** Where on the aircraft, "left engine". */
  position?: string;
  on: { at: string; totals: Totals };
  off?: { at: string; totals: Totals };
}

/** One overhaul of a component, by the component's own totals since new. */
export interface Overhaul {
  at: string;
  sinceNew: Totals;
}

/**
 * What a component has since new, by meter: what it brought along, and what each aircraft flew while it was fitted there. `now` are the totals of
 * the aircraft that it is fitted to at present. Only meters that it counts itself are told. Throws QuantityError where it came off with less than it
 * went on with.
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
              `${component.name}: the reading at removal is lower than at fitting. Check both.`,
            );
          return sum + to - from;
        }, start),
      ),
    ]),
  );
}

/** The same since its last overhaul; since new where it never had one. */
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

/** What is wrong with where components are: one on two aircraft at once, two in one place, off before it was on. */
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
