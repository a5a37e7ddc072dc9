import { judgeSides, MAX_SIDE_DIFFERENCE } from "../../engine/judge-sides";
import type { Judgement } from "../../judgement/judgement";
import { READING, type ReadingKind, readingDefinition } from "../../readings/reading-keys";
import { type Judge, type JudgedPreflight, ledBy } from "./judge";

/** Magnetos are compared by their drop. */
const DROPS: Partial<Record<ReadingKind, string>> = {
  [READING.magnetoRight]: "Drop on the right magneto",
  [READING.magnetoLeft]: "Drop on the left magneto",
};

/** Compares all readings of a twin's engines; magnetos by the drop from their own engine's rpm. */
function sides(preflight: JudgedPreflight): Judgement[] {
  const [left, right, ...more] = preflight.list.type.engines ?? [];
  if (!left || !right || more.length > 0) return [];
  return (Object.keys(MAX_SIDE_DIFFERENCE) as ReadingKind[]).flatMap((kind) => {
    const shown = (engine: string) => {
      const value = preflight.value(kind, engine);
      if (!DROPS[kind]) return value;
      const base = preflight.value(READING.magnetoBase, engine);
      return value === undefined || base === undefined ? undefined : base - value;
    };
    const { unit, label } = readingDefinition(kind);
    const [a, b] = [shown(left), shown(right)];
    if (a === undefined || b === undefined || !unit) return [];
    const what = DROPS[kind] ?? label;
    return ledBy(preflight.itemsOf([kind]), `sides.${kind}`, what, () =>
      judgeSides({ id: kind, what, left: { value: a, unit }, right: { value: b, unit } }),
    );
  });
}

/** Comparison of a twin's engines. */
export const TWIN_JUDGES: readonly Judge[] = [
  { id: "sides", subject: "Left and right engine", topic: "engine", needs: [], judge: sides },
];
