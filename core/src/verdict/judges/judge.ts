import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import type { MagnetoResult } from "../../engine/judge-magnetos";
import type { FuelResult } from "../../fuel/judge-fuel";
import type { Judgement } from "../../judgement/judgement";
import type { OilResult } from "../../oil/judge-oil";
import { ONLY_ENGINE, type ReadingKind, type ReadingTopic, readingName } from "../../readings/reading-keys";
import { guarded, type UsableReadings } from "./usable-readings";

/** What judges leave for each other besides their judgements. */
export interface Given {
  fuel?: FuelResult;
  /** By engine; the only one is called "engine". */
  oil?: Record<string, OilResult>;
  magnetos?: MagnetoResult;
}

/** A walk as the judges see it. */
export interface JudgedWalk extends Pick<UsableReadings, "quantity" | "value"> {
  list: ComposedList;
  state: PreflightState;
  /** The items that read one of these kinds, of this engine or tank; of any where none is named. */
  itemsOf(kinds: readonly ReadingKind[], subject?: string): string[];
  given: Given;
}

/**
 * One judge of a preflight. `needs` names the judges whose words it builds on: the order in which judges stand anywhere means nothing. What it throws as
 * a QuantityError becomes "unjudged" under its own name.
 */
export interface Judge {
  id: string;
  subject: string;
  topic: ReadingTopic;
  needs: readonly string[];
  judge(walk: JudgedWalk): Judgement[];
}

/** The engines of a type: with one, its readings carry no name. */
export function enginesOf({ list }: Pick<JudgedWalk, "list">): { name: string | undefined; key: string }[] {
  return (list.type.engines ?? [undefined]).map((name) => ({ name, key: name ?? ONLY_ENGINE }));
}

/** A cause on one of several engines is another than the same on the other. */
export const causeOnEngine = (cause: string, engine: string | undefined): string =>
  engine ? `${cause}.${engine}` : cause;

/** The judgements of one of several engines say whose they are. */
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
 * What these items lead to, where a judgement does not say itself which led to it; also where their numbers cannot be used: then that is said at their
 * place, under this name.
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

/** Looks once through the list for what each reading is answered by. Complexity: O(items), then O(kinds asked for) a question. */
export function itemsOfKinds(list: ComposedList): JudgedWalk["itemsOf"] {
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
