import { recency } from "./recency";

const day = (date: string, takeOffs: number, landings = takeOffs) => ({ date, takeOffs, landings });

/** 14 CFR 61.57(a): three take-offs and landings within the preceding 90 days (from memory). Days counted by hand. */
describe("recency from the log", () => {
  it("is valid until the oldest of the newest three is ninety days old", () => {
    const flown = [day("2026-03-01", 1), day("2026-03-20", 1), day("2026-05-02", 1)];
    // 1 March plus 90 days is 30 May.
    expect(recency(flown, "2026-05-30")).toEqual({
      until: "2026-05-30",
      takeOffs: 3,
      landings: 3,
      missing: 0,
    });
    expect(recency(flown, "2026-05-31")).toMatchObject({ until: "2026-05-30", missing: 1 });
  });

  it("three on one day are enough, and no longer after the ninetieth day", () => {
    expect(recency([day("2026-03-01", 3)], "2026-03-01").until).toBe("2026-05-30");
    expect(recency([day("2026-03-01", 3)], "2026-05-31").missing).toBe(3);
  });

  it("needs take-offs as well as landings, and never counts future ones", () => {
    expect(recency([day("2026-05-01", 1, 5)], "2026-05-02")).toMatchObject({ missing: 2 });
    expect(recency([day("2026-05-01", 1, 5)], "2026-05-02").until).toBeUndefined();
    expect(recency([day("2026-06-01", 3)], "2026-05-31")).toEqual({ takeOffs: 0, landings: 0, missing: 3 });
  });
});
