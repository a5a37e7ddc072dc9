import { MINIMA_FIELDS, type Minima, type MinimaField } from "@cravix/core/minima/minima";
import { formatQuantity } from "@cravix/core/units/format";
import { typedNumber } from "@cravix/core/units/typed-number";
import type { FormFault } from "../../ui/form/form-faults";

/** Limits as entered, and yes/no limits. */
export interface MinimaDraft {
  typed: Partial<Record<MinimaField, string>>;
  noNight: boolean;
  noPassengers: boolean;
  noUnknown: boolean;
}

export const NO_MINIMA: MinimaDraft = { typed: {}, noNight: false, noPassengers: false, noUnknown: false };
const FIELDS = Object.keys(MINIMA_FIELDS) as MinimaField[];

/** Fault of one entry; undefined if valid or empty, which means no limit. */
export function minimaFault(field: MinimaField, text = ""): string | undefined {
  if (text.trim() === "") return undefined;
  const { min, max } = MINIMA_FIELDS[field];
  const value = typedNumber(text);
  return Number.isFinite(value) && value >= min && value <= max
    ? undefined
    : `Enter a number from ${min} to ${max}.`;
}

/** Limits from a draft; undefined while an entry is invalid, or without any limit. */
export function minimaOfDraft({ typed, noNight, noPassengers, noUnknown }: MinimaDraft): Minima | undefined {
  if (FIELDS.some((field) => minimaFault(field, typed[field]))) return undefined;
  const numbers = FIELDS.flatMap((field) => {
    const text = typed[field]?.trim() ?? "";
    return text === "" ? [] : [[field, typedNumber(text)] as const];
  });
  if (numbers.length === 0 && !noNight && !noPassengers && !noUnknown) return undefined;
  return {
    ...Object.fromEntries(numbers),
    ...(noNight && { noNight: true as const }),
    ...(noPassengers && { noPassengers: true as const }),
    ...(noUnknown && { noUnknown: true as const }),
  };
}

/** Faults of all entries; with `must`, a draft without any limit is one too. */
export function minimaFaults(draft: MinimaDraft, must: boolean): FormFault[] {
  const faults = FIELDS.flatMap((field) => {
    const words = minimaFault(field, draft.typed[field]);
    return words === undefined ? [] : [{ at: `typed.${field}`, words }];
  });
  return faults.length === 0 && must && !minimaOfDraft(draft)
    ? [{ at: "root", words: "Set at least one limit." }]
    : faults;
}

/** Limits on one line. */
export function minimaText(minima: Minima): string {
  return [
    ...FIELDS.flatMap((field) => {
      const value = minima[field];
      const { name, unit, at } = MINIMA_FIELDS[field];
      return value === undefined ? [] : [`${name.toLowerCase()} at ${at} ${formatQuantity({ value, unit })}`];
    }),
    ...(minima.noNight ? ["no night flights"] : []),
    ...(minima.noPassengers ? ["no passengers"] : []),
    ...(minima.noUnknown ? ["nothing left not assessed"] : []),
  ].join(", ");
}
