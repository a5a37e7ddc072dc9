import type { Problem } from "@cravix/contract";
import type { Context } from "hono";
import type { ContentfulStatusCode } from "hono/utils/http-status";

const TITLES: Partial<Record<ContentfulStatusCode, string>> = {
  400: "Not readable",
  404: "Not here",
  409: "Does not fit what is on record",
  413: "Too much at once",
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
) {
  const body: Problem = {
    type: `urn:cravix:problem:${status}`,
    title: TITLES[status] ?? "Error",
    status,
    detail,
    ...(faults && { faults }),
  };
  return c.json(body, status, { "content-type": "application/problem+json" });
}
