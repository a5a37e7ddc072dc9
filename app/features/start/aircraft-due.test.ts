import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { launchOf, releasedSinceFlown } from "./aircraft-due";

/** A time-ordered id of this moment. */
const idAt = (iso: string) => {
  const hex = Date.parse(iso).toString(16).padStart(12, "0");
  return `${hex.slice(0, 8)}-${hex.slice(8)}-7000-8000-000000000000`;
};
const onFile = (releases: string[], on?: string) =>
  ({
    released: releases.map((at) => ({ release: idAt(at) })),
    lastLine: on === undefined ? null : { on, counts: {} },
  }) as unknown as AirworthinessOnFile;

describe("a preflight after maintenance", () => {
  it.each([
    ["no release", onFile([], "2026-05-01T10:00:00Z"), false],
    ["released, and flown since", onFile(["2026-05-01T09:00:00Z"], "2026-05-01T10:00:00Z"), false],
    ["flown, and released since", onFile(["2026-05-01T11:00:00Z"], "2026-05-01T10:00:00Z"), true],
    ["released, and no flight on record", onFile(["2026-05-01T11:00:00Z"]), true],
    [
      "the last of several releases counts, in any order",
      onFile(["2026-05-01T11:00:00Z", "2026-04-01T11:00:00Z"], "2026-05-01T10:00:00Z"),
      true,
    ],
  ])("%s", (_, papers, after) => expect(releasedSinceFlown(papers) !== undefined).toBe(after));
});

describe("the launch of a glider", () => {
  const glider = (kinds: string[], counts: Record<string, number> = {}) =>
    ({
      record: { meters: kinds.map((kind) => ({ id: kind, kind })) },
      lastLine: { counts },
    }) as unknown as AirworthinessOnFile;
  const both = ["winch launches", "aerotows"];

  it.each([
    ["as chosen", glider(both), "aerotow" as const, "aerotow"],
    ["as last time", glider(both, { aerotows: 1 }), undefined, "aerotow"],
    ["by winch if nothing says otherwise", glider(both), undefined, "winch"],
    ["not asked where launches are not counted", glider(["hour meter"]), undefined, undefined],
  ])("%s", (_, papers, told, launch) => expect(launchOf(papers, told)).toBe(launch));
});
