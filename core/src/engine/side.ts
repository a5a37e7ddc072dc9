/** Which of the two magnetos. */
export type Side = "right" | "left";

/** The other of the two. */
export const otherSide = (side: Side): Side => (side === "right" ? "left" : "right");
