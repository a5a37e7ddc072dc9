import type { Control, FieldPath, FieldValues } from "react-hook-form";
import { useWatch } from "./form-library";

/** True once each of these texts has something in it. */
export function useFilled<D extends FieldValues, Out>(
  control: Control<D, unknown, Out>,
  names: readonly FieldPath<D>[],
): boolean {
  const values: unknown[] = useWatch({ control, name: names });
  return values.every((value) => typeof value === "string" && value.trim() !== "");
}
