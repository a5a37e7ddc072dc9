/** Who is briefed. */
export const BRIEFING_KINDS = ["crew", "passengers"] as const;
export type BriefingKind = (typeof BRIEFING_KINDS)[number];
