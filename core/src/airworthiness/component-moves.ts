import type { AircraftRecord } from "./aircraft-record";
import type { DueItem, DueLimit, WorkDone } from "./due/due-item";
import { type Component, componentTotals, sinceOverhaul, type Totals } from "./meters/component";

/** A component with everything that moves with it: times, due items, and work done. */
export interface ComponentSnapshot {
  component: Component;
  items: DueItem[];
  works: WorkDone[];
}

/** Removal or fitting of a component. */
export type ComponentMove =
  | { at: string; component: string; totals: Totals }
  | ({ at: string; position?: string; totals: Totals } & { fitted: ComponentSnapshot });

const isOn = (component: string) => (fitting: AircraftRecord["fittings"][number]) =>
  fitting.component === component && !fitting.off;

/** True if the component is on the aircraft; one without any recorded fitting belongs to it. */
export function isFitted({ fittings }: Pick<AircraftRecord, "fittings">, component: string): boolean {
  const own = fittings.filter((fitting) => fitting.component === component);
  return own.length === 0 || own.some(({ off }) => !off);
}

/** A component id unique in the group: the file of each aircraft may call its engine "engine". */
const OWN_NAME = /^[A-Z0-9]{1,3}-[A-Z0-9]{2,5}\./;
export function sharedComponentId(registration: string, id: string): string {
  return OWN_NAME.test(id) ? id : `${registration}.${id}`;
}

/**
 * Snapshot of a component at removal, under an id unique in the group: its times including this aircraft's, its due items and
 * their works. `shared` is that id: a component that came from elsewhere keeps its own. `totals` are the aircraft's at that time; undefined if no component has this id. Complexity: O(fittings + works).
 */
export function componentAsItIs(
  record: Pick<AircraftRecord, "registration" | "components" | "fittings" | "items" | "works">,
  id: string,
  totals: Totals,
  released: readonly WorkDone[] = [],
  shared = sharedComponentId(record.registration, id),
): ComponentSnapshot | undefined {
  const component = record.components.find((one) => one.id === id);
  if (!component) return undefined;
  const sinceNew = componentTotals(component, record.fittings, totals);
  const items = record.items.filter((item) => item.of === id);
  const names = new Set(items.map((item) => item.id));
  return {
    component: {
      ...component,
      id: shared,
      sinceNew,
      ...(component.sinceOverhaul && { sinceOverhaul: sinceOverhaul(component, sinceNew) }),
    },
    items: items.map((item) => ({ ...item, of: shared })),
    works: [...record.works, ...released].filter(({ item }) => names.has(item)),
  };
}

/** Longest id that a file or an event accepts. */
const MAX_ID = 120;

/** The id of a component's item on an aircraft that may use that id already: "propeller.overhaul", shortened with a number if too long. */
function freeId(component: string, id: string, known: ReadonlySet<string>): string {
  if (!known.has(id)) return id;
  const whole = `${component}.${id}`;
  if (whole.length <= MAX_ID) return whole;
  for (let n = 2; ; n++) {
    const short = `${id.slice(0, MAX_ID - 8)}.${n}`;
    if (!known.has(short)) return short;
  }
}

/**
 * Record after a component was removed or fitted. Due items of a removed component no longer apply to the aircraft; those of a
 * fitted one come with it, under a new id if the aircraft uses that id already. Its times continue. Repeats change nothing.
 */
export function applyComponentMove<R extends AircraftRecord>(record: R, move: ComponentMove): R {
  if (!("fitted" in move)) {
    const { component, at, totals } = move;
    return {
      ...record,
      fittings: record.fittings.map((fitting) =>
        isOn(component)(fitting) && fitting.on.at <= at ? { ...fitting, off: { at, totals } } : fitting,
      ),
    };
  }
  const { fitted, at, totals, position } = move;
  const { component } = fitted;
  if (record.fittings.some((one) => one.component === component.id && one.on.at === at)) return record;
  const coming = new Set(fitted.items.map(({ id }) => id));
  // Due items of a removed component stay on record but make room for those of its replacement.
  const isOld = (item: DueItem) =>
    item.of === component.id || (item.of !== undefined && coming.has(item.id) && !isFitted(record, item.of));
  const old = new Set(record.items.filter(isOld).map(({ id }) => id));
  const known = new Set(record.items.flatMap((item) => (isOld(item) ? [] : [item.id])));
  const own = (id: string) => freeId(component.id, id, known);
  return {
    ...record,
    components: [...record.components.filter(({ id }) => id !== component.id), component],
    // The snapshot's times already include what it flew here before.
    fittings: [
      ...record.fittings.filter((one) => one.component !== component.id),
      {
        component: component.id,
        registration: record.registration,
        ...(position && { position }),
        on: { at, totals },
      },
    ],
    items: [
      ...record.items.filter((item) => !isOld(item)),
      ...fitted.items.map((item) => ({ ...item, id: own(item.id), of: component.id })),
    ],
    works: [
      ...record.works.filter(({ item }) => !old.has(item)),
      ...fitted.works.map((work) => ({ ...work, item: own(work.item) })),
    ],
  };
}

/**
 * Why a component cannot be fitted to an aircraft; undefined if it can. The aircraft needs every meter the component counts, and
 * a free position.
 */
export function fittingError(
  record: Pick<AircraftRecord, "meters" | "fittings" | "components" | "registration">,
  { component, items }: Pick<ComponentSnapshot, "component" | "items">,
  position: string | undefined,
): string | undefined {
  const meters = new Set(record.meters.map(({ id }) => id));
  const counts = [
    ...Object.keys(component.sinceNew),
    ...items.flatMap(({ limits }) => limits.flatMap(meterOf)),
  ];
  const missing = counts.find((meter) => !meters.has(meter));
  if (missing)
    return `${component.name} is tracked by ${missing}, but ${record.registration} has no such meter. Add the meter first.`;
  if (record.fittings.some(isOn(component.id)))
    return `${component.name} is already fitted to ${record.registration}.`;
  const other = record.fittings.find((fitting) => position && !fitting.off && fitting.position === position);
  const name = record.components.find(({ id }) => id === other?.component)?.name ?? other?.component;
  return other ? `${name} is already fitted at this position. Remove it first.` : undefined;
}

const meterOf = (limit: DueLimit) => (limit.by === "meter" || limit.by === "reading" ? [limit.meter] : []);
