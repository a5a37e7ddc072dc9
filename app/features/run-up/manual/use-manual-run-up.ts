import type { Observation } from "@cravix/core/diagnosis";
import type { EngineFeel } from "@cravix/core/engine/classify-drop";
import { isReadingOf } from "@cravix/core/readings/reading-keys";
import {
  needsAttention,
  type RunUpEngine,
  readTyped,
  type Typed,
  type TypedRead,
} from "@cravix/core/run-up-entry";
import { useMemo } from "react";
import { usePersistedState } from "../../../device/log/use-persisted-state";
import { type EventInput, recordAll } from "../../../store/preflight/record";
import { useAppDispatch } from "../../../store/state/hooks";
import { type LoadedPreflight, usePreflightActions } from "../../open-preflight";
import { typedForTheRecord, typedReadings } from "../read/use-record";
import type { TypedNumbers } from "./manual-run-up-entry";

/** Next step after entering numbers: an emergency card, the diagnosis page, or back to the preflight. */
export type TypedEnd =
  | { to: "card"; id: "stops on one" | "no drop"; side: "right" | "left" }
  | { to: "page" | "preflight" };

/** Tolerance of the return to base, rpm for an engine run up at 1,800. */
const BACK_WITHIN = 25;

/** Saved until the page is left, so that a reload repeats nothing. */
interface Kept {
  typed?: Typed;
  /** Observations before plug clearing, and the number of attempts. */
  earlier?: Pick<Typed, "before" | "tries">;
}

/** Records numbers entered by hand and the answers to them, before anything is shown. */
export function useTypedRunUp(preflight: LoadedPreflight, engine: RunUpEngine) {
  const dispatch = useAppDispatch();
  const acts = usePreflightActions(preflight);
  const { id } = preflight.state;
  const { value, change, drop } = usePersistedState<Kept>(
    `typed result:${id}:${engine.name ?? "engine"}`,
    {},
  );
  const { earlier } = value;
  const typed = useMemo<TypedRead | undefined>(
    () => value.typed && readTyped(value.typed, engine),
    [value.typed, engine],
  );
  const { profile, baseItem } = engine;

  const give = ({ base, right, left, back }: TypedNumbers): TypedEnd => {
    const numbers = { base, ...(right !== undefined && { right }), ...(left !== undefined && { left }) };
    const fresh: Typed = { numbers, told: [], tries: 0, ...earlier };
    const made = readTyped(fresh, engine);
    const readings = typedReadings(preflight, engine, numbers);
    const within = BACK_WITHIN * Math.max(1, profile.rpm / 1800);
    const both = preflight.list.items.find(
      (item) => item.traced === "both" && item.station === baseItem.station,
    );
    const isBack = back.every((rpm) => rpm !== undefined && Math.abs(rpm - base) <= within);
    dispatch(
      recordAll(id, [
        { type: "run-up.read", data: typedForTheRecord(engine, made) },
        ...readings.map(
          ({ item, key, value, unit }): EventInput => ({
            type: "reading.taken",
            data: { itemId: item.id, key, value, unit },
          }),
        ),
        ...(both && isBack
          ? [{ type: "item.answered", data: { itemId: both.id, outcome: "checked" } } satisfies EventInput]
          : []),
      ]),
    );
    for (const side of ["right", "left"] as const) {
      const rpm = numbers[side];
      if (rpm === undefined) continue;
      if (rpm === 0) return { to: "card", id: "stops on one", side };
      if (rpm >= base) return { to: "card", id: "no drop", side };
    }
    const done = new Set([
      baseItem.id,
      ...readings.map(({ item }) => item.id),
      ...(both && isBack ? [both.id] : []),
    ]);
    const open = preflight.list.items.find(
      (item) => item.station === baseItem.station && !done.has(item.id) && !preflight.state.answers[item.id],
    );
    if (open) acts.visit(open.id);
    if (!needsAttention(made)) {
      drop();
      return { to: "preflight" };
    }
    change((before) => ({ ...before, typed: fresh }));
    return { to: "page" };
  };

  const tell = (told: Observation[]) => {
    if (!typed) return;
    const { numbers, tries, before } = typed;
    const more: Typed = { numbers, tries, told: [...typed.told, ...told], ...(before && { before }) };
    const made = readTyped(more, engine);
    const felt = typedReadings(preflight, engine, numbers).flatMap(
      ({ item, key, value, unit }): EventInput[] => {
        const feel = told.find(
          ({ feature, side }) => feature === "feel" && isReadingOf(key, `magneto.${side ?? "right"}`),
        );
        if (!feel || !item.reading?.feel) return [];
        const data = { itemId: item.id, key, value, unit, feel: feel.state as EngineFeel };
        return [{ type: "reading.taken", data }];
      },
    );
    dispatch(recordAll(id, [{ type: "run-up.read", data: typedForTheRecord(engine, made) }, ...felt]));
    change((kept) => ({ ...kept, typed: more }));
  };

  return {
    typed,
    give,
    /** Records answers. */
    tell,
    /** Plugs cleared: the numbers are entered again and compared. */
    cleared: () => {
      if (typed) change(() => ({ earlier: { before: typed.observations, tries: typed.tries + 1 } }));
    },
    /** A mistake: the numbers are entered again and replace these. */
    again: () => {
      if (typed)
        change(() => ({ earlier: { tries: typed.tries, ...(typed.before && { before: typed.before }) } }));
    },
    /** Leaves the page; everything is recorded. */
    drop,
  };
}
