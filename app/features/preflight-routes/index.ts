/** Pages of a preflight, in one chunk that is loaded on demand. */

export { aircraftPage, planPage, preflightPage } from "./preflight-page";

export const loadPages = () => import("./pages");
