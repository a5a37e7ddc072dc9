/**
 * Disables prefetching in tests by removing the list of files to prefetch. In one run of the browser tests these are some twenty
 * thousand requests for pages never opened.
 */
export const NOTHING_AHEAD = {
  content: "document.addEventListener('DOMContentLoaded', () => document.getElementById('later')?.remove())",
};
