import { bodyLimit } from "hono/body-limit";
import { problem } from "../problem";

const KIB = 1024;
/** What one request may bring. */
export const MOST_BYTES = { batch: 4 * KIB * KIB, file: 8 * KIB * KIB, order: 16 * KIB };

/** Turns a body away that is larger than this kind of request has, before more of it is read. */
export function atMost(kind: keyof typeof MOST_BYTES) {
  const most = MOST_BYTES[kind];
  const words = most >= KIB * KIB ? `${most / KIB / KIB} MiB` : `${most / KIB} KiB`;
  return bodyLimit({ maxSize: most, onError: (c) => problem(c, 413, `At most ${words} at once.`) });
}
