/** One of the two magnetos. */
export type Side = "right" | "left";

/** The other magneto. */
export const otherSide = (side: Side): Side => (side === "right" ? "left" : "right");
