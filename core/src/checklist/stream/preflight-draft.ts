import { copyDictionary, type Dictionary } from "./dictionary";
import type { PreflightState } from "./preflight-state";

/** Parts of the state that are changed in place: records by id, and lists. */
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

/** A deeply read-only state. */
export type ReadonlyPreflightState = { readonly [P in keyof PreflightState]: AsIs<PreflightState[P]> };

/**
 * A copy-on-write draft of a preflight state. Reads are read-only; `own` copies a part once, however many events then change it.
 * The original state is not modified.
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

  /** Returns one of these parts for modification. */
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

  /** Replaces whole parts. */
  put(parts: Partial<PreflightState>): void {
    for (const part of Object.keys(parts)) this.#own.delete(part as GrowingPart);
    Object.assign(this.#state, parts);
  }

  /** Drops earlier samples and the rocking of the wings. */
  drop(part: "rocked"): void {
    delete this.#state[part];
  }

  done(): PreflightState {
    return this.#state;
  }
}
