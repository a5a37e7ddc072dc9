import { copyDictionary, type Dictionary } from "./dictionary";
import type { PreflightState } from "./preflight-state";

/** The parts of a state that grow where they stand: records by id, and rows. */
const RECORDS = ["answers", "readings", "samples", "runUps", "blades", "flowed"] as const;
const ROWS = ["joined", "postponed", "discrepancies", "undoable"] as const;
type RecordPart = (typeof RECORDS)[number];
type RowPart = (typeof ROWS)[number];
export type GrowingPart = RecordPart | RowPart;

type AsIs<T> = T extends readonly (infer One)[]
  ? readonly One[]
  : T extends Dictionary<infer One>
    ? Readonly<Dictionary<One>>
    : Readonly<T>;

/** A state as it can be looked at: nothing of it is changed where it stands. */
export type ReadonlyPreflightState = { readonly [P in keyof PreflightState]: AsIs<PreflightState[P]> };

/**
 * A preflight that is being gone on with. What is read of it is read-only, so that nothing can be changed that was not asked for; what is to be
 * changed is copied once, whatever many events then change it. The state it began with stays as it was.
 */
export class PreflightDraft {
  readonly #state: PreflightState;
  readonly #own = new Set<GrowingPart>();

  constructor(before: PreflightState) {
    this.#state = { ...before };
  }

  get now(): ReadonlyPreflightState {
    return this.#state;
  }

  /** One of the growing parts, to be changed. */
  own<P extends GrowingPart>(part: P): PreflightState[P] {
    const state = this.#state as Pick<PreflightState, P>;
    if (!this.#own.has(part)) {
      this.#own.add(part);
      const before: unknown = state[part];
      const copy = Array.isArray(before) ? [...before] : copyDictionary(before as Dictionary<unknown>);
      state[part] = copy as PreflightState[P];
    }
    return state[part];
  }

  /** Puts whole parts in their place. */
  put(parts: Partial<PreflightState>): void {
    for (const part of Object.keys(parts)) this.#own.delete(part as GrowingPart);
    Object.assign(this.#state, parts);
  }

  /** The cups and the rocking of before count no more. */
  drop(part: "rocked"): void {
    delete this.#state[part];
  }

  done(): PreflightState {
    return this.#state;
  }
}
