import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import type { MagnetoResult } from "../../engine/judge-magnetos";
import type { FuelResult } from "../../fuel/judge-fuel";
import type { Judgement } from "../../judgement/judgement";
import type { OilResult } from "../../oil/judge-oil";
import { ONLY_ENGINE, type ReadingKind, type ReadingTopic, readingName } from "../../readings/reading-keys";
import { guarded, type UsableReadings } from "./usable-readings";

/** Results judges pass to each other besides judgements. */
export interface Given {
  fuel?: FuelResult;
  /** By engine; a single one is called "engine". */
  oil?: Record<string, OilResult>;
  magnetos?: MagnetoResult;
}

/** A preflight as input for judges. */
export interface JudgedPreflight extends Pick<UsableReadings, "quantity" | "value"> {
  list: ComposedList;
  state: PreflightState;
  /** Ids of items that read these kinds, for this engine or tank, or any if omitted. */
  itemsOf(kinds: readonly ReadingKind[], subject?: string): string[];
  given: Given;
}

/**
 * A judge of a preflight. `needs` names the judges whose results it uses; their order elsewhere does not matter. A thrown
 * QuantityError becomes "unjudged" under its name.
 */
export interface Judge {
  id: string;
  subject: string;
  topic: ReadingTopic;
  needs: readonly string[];
  judge(preflight: JudgedPreflight): Judgement[];
}

/** Engines of a type; a single engine's readings have no name. */
export function enginesOf({
  list,
}: Pick<JudgedPreflight, "list">): { name: string | undefined; key: string }[] {
  return (list.type.engines ?? [undefined]).map((name) => ({ name, key: name ?? ONLY_ENGINE }));
}

/** Makes a cause specific to one of several engines. */
export const causeOnEngine = (cause: string, engine: string | undefined): string =>
  engine ? `${cause}.${engine}` : cause;

/** Prefixes judgements with the engine they belong to. */
export function ofEngine(engine: string | undefined, made: readonly Judgement[]): Judgement[] {
  if (!engine) return [...made];
  return made.map((judgement) => ({
    ...judgement,
    id: `${judgement.id}.${engine}`,
    ...(judgement.cause && { cause: causeOnEngine(judgement.cause, engine) }),
    subject: `${judgement.subject}, ${engine} engine`,
  }));
}

/**
 * Items behind a judge's results, used when a judgement names none; also when their numbers cannot be used: the reason is then
 * shown at those items, under this name.
 */
export const ledBy = (
  itemIds: string[],
  id: string,
  subject: string,
  make: () => Judgement | undefined | readonly Judgement[],
): Judgement[] =>
  guarded(id, subject, () => {
    const made = make() ?? [];
    return "grade" in made ? [made] : [...made];
  }).map((judgement) => (judgement.itemIds ? judgement : { ...judgement, itemIds }));

/** Indexes items by reading. Complexity: O(items), then O(requested kinds) per call. */
export function itemsOfKinds(list: ComposedList): JudgedPreflight["itemsOf"] {
  const reads = new Map<ReadingKind, { id: string; subject: string | undefined; place: number }[]>();
  list.items.forEach(({ id, reading }, place) => {
    const name = reading && readingName(reading.key);
    if (!name) return;
    const one = { id, subject: name.subject, place };
    const known = reads.get(name.kind);
    if (known) known.push(one);
    else reads.set(name.kind, [one]);
  });
  return (kinds, subject) =>
    kinds
      .flatMap((kind) => reads.get(kind) ?? [])
      .filter((one) => subject === undefined || one.subject === subject)
      .sort((a, b) => a.place - b.place)
      .map((one) => one.id);
}
