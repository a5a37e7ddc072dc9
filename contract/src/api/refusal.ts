/** A rejected event: id, field, and reason for the user. */
export interface Refusal {
  id: string | null;
  index: number;
  field?: string;
  reason: string;
}
