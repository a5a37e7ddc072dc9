// @ts-check
// A worker begins without the loader that reads the sources as they are: it brings its own.
import { register } from "tsx/esm/api";

register();
const jobs = await import(new URL("./jobs.ts", import.meta.url).href);

/** @param {import("./jobs").Job} job */
export const work = (job) => jobs.work(job);
