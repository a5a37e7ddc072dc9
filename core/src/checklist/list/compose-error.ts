/** A checklist that cannot be composed, and what to do about it. */
export class ComposeError extends Error {
  override readonly name = "ComposeError";
}
