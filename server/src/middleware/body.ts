import { isDeeperThan } from "@cravix/contract";
import type { Context, MiddlewareHandler } from "hono";
import { bodyLimit } from "hono/body-limit";
import { problem } from "../problem";
import { runInWorker } from "../worker-pool/run-in-worker";

const KIB = 1024;
/** What one request may bring. */
export const MOST_BYTES = {
  batch: 4 * KIB * KIB,
  file: 8 * KIB * KIB,
  order: 16 * KIB,
  picture: 2 * KIB * KIB,
};

/** Turns a body away that is larger than this kind of request has, before more of it is read. */
export function atMost(kind: keyof typeof MOST_BYTES): MiddlewareHandler {
  const most = MOST_BYTES[kind];
  const words = most >= KIB * KIB ? `${most / KIB / KIB} MiB` : `${most / KIB} KiB`;
  const tooLarge = (c: Context) => problem(c, 413, `The request is too large. The limit is ${words}.`);
  const counted = bodyLimit({ maxSize: most, onError: tooLarge });
  return (c, next) => {
    // Where the length is told, Node reads just so much. To ask for the body itself, as counting does, makes a web stream of it, and that costs a batch time.
    const told = c.req.header("content-length");
    if (told === undefined || c.req.header("transfer-encoding") !== undefined) return counted(c, next);
    return Number(told) > most ? Promise.resolve(tooLarge(c)) : next();
  };
}

const SMALL = 256 * KIB;

/**
 * Lets nothing that is nested deeper than anything that is sent here reach the parser of the request: it takes a second over some million brackets.
 * Such a body is cut to depth in a worker; what was cut is refused where it stood, and its neighbours are taken.
 */
export const limitJsonDepth: MiddlewareHandler = async (c, next) => {
  const text = await c.req.text();
  // A small one is parsed in a wink however deep it is.
  if (text.length > SMALL && isDeeperThan(text)) {
    const cut = await runInWorker({ kind: "flatten", text });
    if (cut === undefined) return problem(c, 400, "The request body must be JSON.");
    c.req.bodyCache.text = Promise.resolve(cut) as unknown as string;
  }
  await next();
};
