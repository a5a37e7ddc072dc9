/** The number in a text typed by a person, with a decimal point or comma; NaN if there is none. */
export function typedNumber(text: string): number {
  const trimmed = text.trim();
  return trimmed === "" ? Number.NaN : Number(trimmed.replace(",", "."));
}
