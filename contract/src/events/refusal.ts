/** An event that was not taken: which, where in it, why, in words for the person who gave the answer. */
export interface Refusal {
  id: string | null;
  index: number;
  field?: string;
  reason: string;
}
