import { readFile } from "@cravix/contract/files";
import { airworthinessSnapshot, judgeAirworthiness } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { checkLog } from "@cravix/core/airworthiness/flights/check-entry";
import { foldTotals } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { airworthinessFiles, trainerHistory, yearOfFlights } from "./index";

const NOW = new Date("2026-05-01T12:00:00.000Z");

describe.each(
  airworthinessFiles(NOW).map((file) => [file.registration, file] as const),
)("%s", (registration, file) => {
  const lines = yearOfFlights(NOW)
    .filter((line) => line.registration === registration)
    .map((line, i) => ({ ...line, id: String(i).padStart(5, "0") }));
  const totals = foldTotals(file.start.totals, lines, file.meters).totals;

  test("its file is valid, and its year of flights has no gap, no slip, no two at once", () => {
    expect(readFile(JSON.parse(JSON.stringify(file)))).toHaveProperty("file");
    expect(lines.length).toBeGreaterThan(20);
    expect(checkLog(lines, file.meters, NOW.toISOString())).toEqual([]);
  });

  test("may fly an hour today, and nothing of it is unknown", () => {
    const judged = judgeAirworthiness(airworthinessSnapshot(file, { totals }), {
      at: NOW.toISOString(),
      minutes: 60,
      conditions: [],
    });
    for (const { item, verdict } of judged)
      expect([item.id, verdict.state]).toEqual([
        item.id,
        expect.stringMatching(/^(in date|not for this flight)$/),
      ]);
    // Example values, each with its source.
    for (const { source } of file.items) expect(source).toMatchObject({ example: true });
  });
});

test("the trainer's log goes on from its preflights: what a preflight read is what the line before it said", () => {
  const lines = yearOfFlights(NOW).filter(({ registration }) => registration === "QX-TAR");
  const read = trainerHistory(NOW).events.flatMap((e) =>
    e.type === "reading.taken" && e.data.key === "hours" ? [{ at: e.at, value: e.data.value }] : [],
  );
  expect(read.length).toBeGreaterThan(10);
  for (const { at, value } of read) {
    const before = lines.filter(({ on }) => on < at).at(-1);
    expect(before?.meters.hours?.in).toBeCloseTo(value, 6);
  }
});

test("the same for the same day", () => {
  expect(airworthinessFiles(NOW)).toEqual(airworthinessFiles(NOW));
});
