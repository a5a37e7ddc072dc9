import type { Problem } from "@cravix/contract";
import type { Context, TypedResponse } from "hono";
import type { ContentfulStatusCode } from "hono/utils/http-status";

const TITLES: Partial<Record<ContentfulStatusCode, string>> = {
  400: "Not readable",
  403: "Not from here",
  404: "Not here",
  409: "Does not fit what is on record",
  412: "Changed since",
  413: "Too much at once",
  415: "Of another kind",
  421: "Not called so",
  429: "Too many at once",
  422: "Not valid",
  500: "Our fault",
  503: "The database does not answer",
};

/** The one shape of every error (RFC 9457, application/problem+json). */
export function problem(
  c: Context,
  status: ContentfulStatusCode,
  detail: string,
  faults?: Problem["faults"],
): Response & TypedResponse<never> {
  const body: Problem = {
    type: `urn:cravix:problem:${status}`,
    title: TITLES[status] ?? "Error",
    status,
    detail,
    ...(faults && { faults }),
  };
  // To a client that throws what is no success, an error is no answer that it has to read.
  return c.json(body, status, {
    "content-type": "application/problem+json",
    ...(status === 503 && { "retry-after": "2" }),
  }) as unknown as Response & TypedResponse<never>;
}
