/**
 * For pages in which it is only seen that something works: takes away what names the parts of the interface that a page fetches ahead once it stands. In one run of the
 * browser tests they are some twenty thousand requests, for pages that are never opened.
 */
export const NOTHING_AHEAD = {
  content: "document.addEventListener('DOMContentLoaded', () => document.getElementById('later')?.remove())",
};
