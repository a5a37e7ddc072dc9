/** Medical, ratings and recency of a person. Their pages are loaded on demand. */

export { usePersonDue } from "./use-person-due";

/** Lists of due items, with their calculations. */
export const loadPersonParts = () => import("./person-parts");
