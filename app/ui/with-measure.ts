/** What was logged with its count or measure behind it: one sentence, whether the text ends like one or not. */
export const withMeasure = (text: string, measure: string | undefined): string =>
  measure ? `${text.replace(/\.$/, "")}, ${measure}` : text;
