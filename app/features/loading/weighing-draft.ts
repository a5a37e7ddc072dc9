import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";
import { typedNumber } from "@cravix/core/units/typed-number";
import type { Entry, FormFault } from "../../ui/form/form-faults";

/** A weighing report as it is entered. */
export interface WeighingDraft {
  date: string;
  kg: string;
  mm: string;
  text: string;
  /** The arm that was confirmed as measured from the same datum, in millimetres. */
  sameDatum: string;
}

export const NO_WEIGHING: WeighingDraft = { date: "", kg: "", mm: "", text: "", sameDatum: "" };

/** Weighing from a draft; undefined while incomplete. The file's schema checks numbers and date. */
export function weighingOf({ date, kg, mm, text }: WeighingDraft): LoadingProfile["weighing"] | undefined {
  const [emptyKg, armMm] = [typedNumber(kg), typedNumber(mm)];
  if (!date.trim() || !text.trim() || !Number.isFinite(emptyKg) || !Number.isFinite(armMm)) return undefined;
  return {
    date: date.trim(),
    emptyKg,
    armMm,
    source: { kind: "handbook", text: text.trim(), example: false },
  };
}

/** Fields of the file, and where they are entered. */
const FIELDS: readonly (readonly [end: string, field: keyof WeighingDraft])[] = [
  ["date", "date"],
  ["emptyKg", "kg"],
  ["armMm", "mm"],
  ["text", "text"],
];

/** The file with the new weighing, or what the draft lacks and what the file's schema refuses. */
export async function profileOf(
  profile: LoadingProfile,
  draft: WeighingDraft,
): Promise<Entry<{ text: string }>> {
  const weighing = weighingOf(draft);
  if (!weighing) return { faults: incomplete(draft) };
  const text = JSON.stringify({ ...profile, weighing });
  const { readFileText } = await import("@cravix/contract/schemas");
  const reading = readFileText(text);
  if (!("faults" in reading)) return { data: { text } };
  return {
    faults: reading.faults.map(({ path, expected }) => {
      const field = path.startsWith("weighing") && FIELDS.find(([end]) => path.endsWith(end))?.[1];
      return field ? { at: field, words: expected } : { at: "root", words: `${path}: ${expected}` };
    }),
  };
}

function incomplete({ date, kg, mm, text }: WeighingDraft): FormFault[] {
  const number = (at: "kg" | "mm", typed: string, words: string): FormFault[] =>
    Number.isFinite(typedNumber(typed)) ? [] : [{ at, words }];
  return [
    ...(date.trim() ? [] : [{ at: "date", words: "Enter the date of the weighing." }]),
    ...number("kg", kg, "Enter the empty mass as a number."),
    ...number("mm", mm, "Enter the arm as a number."),
    ...(text.trim() ? [] : [{ at: "text", words: "Enter the report's number and the workshop." }]),
  ];
}
