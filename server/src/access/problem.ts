import type { Problem } from "@cravix/contract";
import type { Context, TypedResponse } from "hono";
import type { ContentfulStatusCode } from "hono/utils/http-status";

const TITLES: Partial<Record<ContentfulStatusCode, string>> = {
  400: "Bad request",
  403: "Not allowed",
  404: "Not found",
  409: "Conflict with recorded data",
  412: "Changed by someone else",
  413: "Request too large",
  415: "Unsupported content type",
  421: "Unknown host name",
  429: "Too many requests",
  422: "Invalid data",
  500: "Server error",
  503: "Temporarily unavailable",
};

/** Error response (RFC 9457, application/problem+json). */
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
  // Typed `never`: the client throws on errors.
  return c.json(body, status, {
    "content-type": "application/problem+json",
    ...(status === 503 && { "retry-after": "2" }),
  }) as unknown as Response & TypedResponse<never>;
}
