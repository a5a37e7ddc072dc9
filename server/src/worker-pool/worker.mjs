// @ts-check
// Workers start without the TypeScript loader, so this file registers it.
import { register } from "tsx/esm/api";

register();
const jobs = await import(new URL("./jobs.ts", import.meta.url).href);

/** @param {import("./jobs").Job} job */
export const work = (job) => jobs.work(job);
