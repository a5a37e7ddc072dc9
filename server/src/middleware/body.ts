import { isDeeperThan } from "@cravix/contract";
import type { Context, MiddlewareHandler } from "hono";
import { bodyLimit } from "hono/body-limit";
import { problem } from "../access/problem";
import { runInWorker } from "../worker-pool/run-in-worker";

const KIB = 1024;
/** Maximum request sizes. */
export const MAX_BYTES = {
  batch: 4 * KIB * KIB,
  file: 8 * KIB * KIB,
  order: 16 * KIB,
  picture: 2 * KIB * KIB,
};

/** Rejects a body above the maximum for its kind, before reading more of it. */
export function atMost(kind: keyof typeof MAX_BYTES): MiddlewareHandler {
  const most = MAX_BYTES[kind];
  const words = most >= KIB * KIB ? `${most / KIB / KIB} MiB` : `${most / KIB} KiB`;
  const tooLarge = (c: Context) => problem(c, 413, `The request is too large. The limit is ${words}.`);
  const counted = bodyLimit({ maxSize: most, onError: tooLarge });
  return (c, next) => {
    // With a content length Node stops there by itself. Counting would create a web stream of the body, which slows every batch.
    const told = c.req.header("content-length");
    if (told === undefined || c.req.header("transfer-encoding") !== undefined) return counted(c, next);
    return Number(told) > most ? Promise.resolve(tooLarge(c)) : next();
  };
}

const SMALL = 256 * KIB;

/**
 * Keeps deeply nested JSON from the parser, which takes a second for millions of brackets. Such a body is flattened in a worker;
 * only the flattened parts are rejected.
 */
export const limitJsonDepth: MiddlewareHandler = async (c, next) => {
  const text = await c.req.text();
  // Small bodies are parsed quickly at any depth.
  if (text.length > SMALL && isDeeperThan(text)) {
    const cut = await runInWorker({ kind: "flatten", text });
    if (cut === undefined) return problem(c, 400, "The request body must be JSON.");
    c.req.bodyCache.text = Promise.resolve(cut) as unknown as string;
  }
  await next();
};
