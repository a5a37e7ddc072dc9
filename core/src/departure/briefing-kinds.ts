/** Audiences of a briefing. */
export const BRIEFING_KINDS = ["crew", "passengers"] as const;
export type BriefingKind = (typeof BRIEFING_KINDS)[number];
