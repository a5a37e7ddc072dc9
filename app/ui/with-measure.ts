/** Appends a count or measure to a logged text as one sentence, with or without a final full stop. */
export const withMeasure = (text: string, measure: string | undefined): string =>
  measure ? `${text.replace(/\.$/, "")}, ${measure}` : text;
