import fc from "fast-check";
import type { Runway } from "../aircraft/aircraft-type";
import type { Source } from "../judgement/judgement";
import type { LoadingProfile } from "../mass-and-balance/loading-profile";
import { judgeMinima, type MinimaSet, minimaFor, strictest } from "../minima/minima";
import type { PerformanceProfile } from "../performance/performance-profile";
import { composeBriefing, passengerBriefing } from "./briefing";
import { calculateDeparture, type DepartureInput } from "./calculate-departure";
import { distanceRisk } from "./departure-risk";
import { abortText, distanceText, remedyText } from "./departure-text";
import { judgeDeparture } from "./judge-departure";
import { fits, remedies } from "./remedies";

const source: Source = { kind: "handbook", text: "example", example: true };
const PROFILE: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TAR",
  datum: "the firewall",
  weighing: { date: "2024-01-01", emptyKg: 740, armMm: 1000, source },
  stations: [
    { id: "front", name: "front seats", kind: "seat", armMm: 940, pilot: true },
    { id: "rear", name: "rear seats", kind: "seat", armMm: 1850 },
    { id: "bags", name: "baggage", kind: "baggage", armMm: 2400, maxKg: 54 },
  ],
  tanks: [{ tank: "left", armMm: 1220 }],
  envelope: {
    corners: [
      { kg: 650, armMm: 890 },
      { kg: 885, armMm: 890 },
      { kg: 1110, armMm: 1000 },
      { kg: 1110, armMm: 1200 },
      { kg: 650, armMm: 1200 },
    ],
    source,
  },
  maxTakeoffKg: { value: 1110, source },
};
const PERFORMANCE: PerformanceProfile = {
  takeOff: { kind: "single", kg: 1110, rollM: 290, over50M: 480, source },
  landing: { kind: "single", kg: 1110, rollM: 210, over50M: 420, source },
  liftOffKt: 56,
  approachKt: 62,
  climbKt: 76,
  climbFpm: {
    chart: {
      kg: [1110],
      pressureAltitudeFt: [0, 4000],
      celsius: [0, 40],
      values: [
        [
          [720, 600],
          [520, 400],
        ],
      ],
    },
    source,
  },
};
const GRASS: Runway = {
  id: "24",
  headingDeg: 240,
  lengthM: 780,
  surface: "grass",
  declared: { toraM: 780, todaM: 780, asdaM: 780, ldaM: 740 },
};
const PAVED: Runway = {
  id: "29",
  headingDeg: 290,
  lengthM: 910,
  surface: "asphalt",
  declared: { toraM: 910, todaM: 910, asdaM: 910, ldaM: 910 },
};
const input = (more: Partial<DepartureInput> = {}): DepartureInput => ({
  type: { performance: PERFORMANCE },
  airfield: { elevationFt: 23, runways: [GRASS, PAVED] },
  runway: GRASS,
  loading: PROFILE,
  load: { stations: { front: 160, rear: 60, bags: 10 }, litres: { left: 110 }, kgPerL: 0.72 },
  burn: { taxiL: 4, tripL: 40 },
  wind: { fromDeg: 250, kt: 10 },
  settingHpa: 1013.25,
  celsius: 15,
  ...more,
});

test("a departure: everything from one set of numbers, and each is what its part says", () => {
  const departure = calculateDeparture(input());
  expect(departure.missing).toEqual([]);
  expect(departure.takeoffKg).toBeCloseTo(740 + 230 + 106 * 0.72, 6);
  // 480 m, lighter than charted; dry grass 1.2 (leaflet), safety 1.33; elevation 23 ft.
  expect(departure.takeOff?.neededM).toBeCloseTo(
    480 * 1.1 ** 0.023 * 1.2 * 1.33 * 1.1 ** ((15 - (15 - 1.98 * 0.023)) / 10),
    0,
  );
  expect(departure.takeOff?.leftM).toBeGreaterThan(0);
  expect(departure.abort).toMatchObject({ atM: 390, speedKt: expect.closeTo(39.2, 6) });
  expect(departure.climb?.fpm).toBeCloseTo(720 - 120 * (15 / 40), -1);
  expect(abortText(departure)).toBe("39 kt by 390 m down the runway, or stop.");
  expect(distanceText("Take-off", departure.takeOff as never)).toMatch(
    /^Take-off needs 7\d\d m, 780 m available: 5\d\d m from the handbook with corrections, times safety factor 1\.33\. \d+ m to spare\.$/,
  );
});

test("what is missing is named, and no number made up for it", () => {
  const why = (more: Partial<DepartureInput>) =>
    calculateDeparture(input(more))
      .missing.map((one) => one.why)
      .join(" ");
  const longer = { ...GRASS, declared: { toraM: 900, todaM: 900, asdaM: 900, ldaM: 900 } };
  const { wind: _wind, ...still } = input({ runway: longer });
  // Assuming still air is always reported.
  const { assumed, takeOff } = calculateDeparture(still);
  expect(assumed[0]).toBe("Wind not known: calculated for still air.");
  // The tailwind it bears: with it the take-off fits, with one knot more it does not.
  const bears = Number(/up to (\d+) kt/.exec(assumed[1] ?? "")?.[1]);
  const tail = (kt: number) => {
    const { takeOff: off, climb } = calculateDeparture({ ...still, wind: { fromDeg: 60, kt } });
    return Math.min(off?.leftM ?? -1, (climb?.aboveFt ?? 50) - 50);
  };
  expect(takeOff?.leftM).toBeGreaterThan(0);
  expect(tail(bears)).toBeGreaterThanOrEqual(0);
  expect(tail(bears + 1)).toBeLessThan(0);
  const { load: _, ...unloaded } = input();
  expect(calculateDeparture(unloaded)).not.toHaveProperty("takeOff");
  expect(why({ runway: { ...GRASS, declared: undefined } as never })).toContain("no declared distances");
  expect(why({ celsius: undefined } as never)).toContain("Temperature not known");
  const { settingHpa: _setting, ...unset } = input();
  expect(calculateDeparture(unset)).toMatchObject({
    assumed: [expect.stringContaining("standard pressure (1,013 hPa)")],
    takeOff: { leftM: expect.any(Number) },
  });
  expect(why({ settingHpa: 29.92 })).toContain("850 to 1,090");
  expect(why({ wind: { fromDeg: 250, kt: 10, gustKt: 5 } })).toContain("less than the mean wind");
  const hot = calculateDeparture(input({ celsius: 41 }));
  expect(hot.missing).toMatchObject([{ what: "climb", why: expect.stringContaining("off the chart") }]);
  expect(hot.takeOff?.leftM).toBeLessThan(0);
  expect(why({ load: { stations: { front: Number.NaN }, litres: {}, kgPerL: 0.7 } })).toContain(
    "not a number",
  );
});

test("a remedy fits, and one kilogram or litre less of it does not: by trying", () => {
  let tried = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: 10, max: 38 }),
      fc.record({
        rear: fc.integer({ min: 0, max: 180 }),
        bags: fc.integer({ min: 0, max: 54 }),
        litres: fc.integer({ min: 40, max: 180 }),
      }),
      fc.integer({ min: 0, max: 359 }),
      (celsius, { rear, bags, litres }, fromDeg) => {
        const one = input({
          celsius,
          wind: { fromDeg, kt: 8 },
          load: { stations: { front: 160, rear, bags }, litres: { left: litres }, kgPerL: 0.72 },
          burn: { taxiL: 4, tripL: 10, reserveL: 6 },
        });
        const good = (more: Partial<DepartureInput>) =>
          fits(calculateDeparture({ ...one, ...more }), { performance: true });
        const found = remedies(one);
        if (good({})) {
          expect(found).toEqual([]);
          return;
        }
        const load = one.load as NonNullable<typeof one.load>;
        const changed = (kg: number, station: string) =>
          good({
            load: { ...load, stations: { ...load.stations, [station]: (load.stations[station] ?? 0) - kg } },
          });
        const poured = (less: number) => good({ load: { ...load, litres: { left: litres - less } } });
        for (const remedy of found) {
          tried++;
          if (remedy.do === "other runway") expect(good({ runway: remedy.runway })).toBe(true);
          if (remedy.do === "leave behind") {
            expect(changed(remedy.kg, remedy.station)).toBe(true);
            for (let kg = 1; kg < remedy.kg; kg++) expect(changed(kg, remedy.station)).toBe(false);
          }
          if (remedy.do === "less fuel") {
            expect(litres - remedy.litres).toBeGreaterThanOrEqual(20);
            expect(poured(remedy.litres)).toBe(true);
            for (let l = 1; l < remedy.litres; l++) expect(poured(l)).toBe(false);
          }
        }
        const kilograms = found.flatMap((remedy) =>
          remedy.do === "leave behind"
            ? [remedy.kg]
            : remedy.do === "less fuel"
              ? [remedy.litres * 0.72]
              : [],
        );
        expect(kilograms).toEqual([...kilograms].sort((a, b) => a - b));
      },
    ),
    { numRuns: 60 },
  );
  expect(tried).toBeGreaterThan(20);
});

test("a cooler hour is the first that is enough, and is shown with its temperature", () => {
  const hot = input({
    celsius: 33,
    load: { stations: { front: 170, rear: 60 }, litres: { left: 100 }, kgPerL: 0.72 },
  });
  const cooler = [
    { at: "2026-06-15T16:00:00Z", celsius: 31 },
    { at: "2026-06-15T18:00:00Z", celsius: 22 },
    { at: "2026-06-15T20:00:00Z", celsius: 12 },
  ];
  const hour = remedies(hot, { cooler }).find((one) => one.do === "cooler hour");
  expect(hour && remedyText(hour)).toMatch(/^Depart at (18|20):00 UTC: \d\d °C forecast\.$/);
});

test("the worst reasonable case lies beyond the best guess, is the same when asked again, and grows with what is uncertain", () => {
  const one = input();
  const risk = distanceRisk(one, "takeOff");
  const best = calculateDeparture(one).takeOff?.over50M ?? 0;
  expect(risk?.likelyMostM).toBeGreaterThan(best);
  expect(risk?.likelyMostM).toBeLessThan(best * 1.5);
  expect(risk?.tooShortPercent).toBeLessThan(1);
  expect(distanceRisk(one, "takeOff")).toEqual(risk);
  const gusty = distanceRisk(input({ wind: { fromDeg: 70, kt: 3, gustKt: 15 } }), "takeOff");
  const calm = distanceRisk(input({ wind: { fromDeg: 70, kt: 3 } }), "takeOff");
  expect(
    (gusty?.likelyMostM ?? 0) /
      (calculateDeparture(input({ wind: { fromDeg: 70, kt: 3, gustKt: 15 } })).takeOff?.over50M ?? 1),
  ).toBeGreaterThan(1);
  expect(gusty?.likelyMostM).toBeGreaterThan(calm?.likelyMostM ?? 0);
  expect(distanceRisk(input({ celsius: undefined } as never), "takeOff")).toBeUndefined();
});

const PILOT: MinimaSet = {
  of: "pilot",
  minima: { crosswindKt: 10, windKt: 20, ceilingFt: 1500, noNight: true },
  source: { ...source, kind: "own limit" },
};
const SOLO: MinimaSet = {
  of: "authorisation",
  minima: { crosswindKt: 8, visibilityM: 8000 },
  source: { ...source, text: "authorisation" },
  aircraft: ["QX-TAR"],
  until: "2026-12-31",
};
const TYPE: MinimaSet = { of: "aircraft", minima: { crosswindKt: 15 }, source };

test("the strictest decides and is named; one's own is asked about, an authorisation stops", () => {
  expect(strictest([TYPE, PILOT, SOLO], "crosswindKt")?.set.of).toBe("authorisation");
  expect(strictest([PILOT, SOLO], "ceilingFt")?.value).toBe(1500);
  expect(strictest([SOLO], "ceilingFt")).toBeUndefined();
  const judged = judgeMinima([TYPE, PILOT, SOLO], {
    crosswindKt: 9,
    windKt: 25,
    ceilingFt: 2000,
    night: true,
  });
  const by = Object.fromEntries(judged.map(({ id, grade, sentence }) => [id, [grade, sentence]]));
  expect(by).toEqual({
    "minima.crosswindKt": ["stop", "9 kt: the authorisation's limit is 8 kt."],
    "minima.windKt": ["ask", "25 kt: your personal limit is 20 kt."],
    "minima.ceilingFt": ["within limits", "2,000 ft: your personal limit is 1,500 ft."],
    "minima.noNight": ["ask", expect.stringContaining("no night")],
  });
  // Unknown values are not judged, nor are values without a limit.
  expect(judgeMinima([PILOT], { crosswindKt: 3, gustKt: 30 }).map(({ id }) => id)).toEqual([
    "minima.crosswindKt",
  ]);
});

test("a student cannot widen an authorisation by a limit of his own; it is for its aircraft and its days", () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 40 }), (own, wind) => {
      const wide: MinimaSet = { ...PILOT, minima: { crosswindKt: own } };
      const [judged] = judgeMinima([wide, SOLO], { crosswindKt: wind });
      if (wind > 8) expect(judged?.grade).not.toBe("within limits");
      if (wind > 8 && own >= 8) expect(judged?.grade).toBe("stop");
    }),
  );
  expect(minimaFor([SOLO, PILOT], "QX-HLD", "2026-06-01")).toEqual([PILOT]);
  expect(minimaFor([SOLO], "QX-TAR", "2027-01-01")).toEqual([]);
});

test("the briefing has today's numbers; no height to turn back is ever proposed", () => {
  const type = { what: "trainer", oil: {} as never, performance: PERFORMANCE };
  const steps = composeBriefing({ type, departure: calculateDeparture(input()), windWords: "250° 10 kt" });
  const words = steps.map((step) => step.words).join(" ");
  expect(words).toContain("Runway 2 4, 780 metres, grass.");
  expect(words).toContain("39 kt by 390 m");
  expect(words).not.toMatch(/turn back|\d{3} feet/);
  expect(
    composeBriefing({ type, departure: calculateDeparture(input()), turnBackFt: 700 }).map(
      ({ title }) => title,
    ),
  ).toContain("Engine failure above 700 ft");
  const twin = composeBriefing({
    type: { ...type, engines: ["left", "right"] },
    departure: { ...calculateDeparture(input()), oneEngine: { fpm: -60, gradientPercent: -1 } },
  });
  expect(twin.map((step) => step.words).join(" ")).toContain("Hold blue line and descend");
  const glider = composeBriefing({
    type: { what: "glider" },
    departure: calculateDeparture({ ...input(), type: {} }),
    launch: "winch",
  });
  expect(glider.map(({ title }) => title)).toEqual([
    "Runway and wind",
    "Winch launch",
    "Launch failure, low",
    "Launch failure, medium height",
    "Launch failure, high",
  ]);
});

test("passengers hear what is on board by the type's file, and nothing else", () => {
  const words = (...of: Parameters<typeof passengerBriefing>) =>
    passengerBriefing(...of)
      .map((line) => line.words)
      .join(" ");
  const glider = words({ entry: "canopy", jettison: true, belts: "harness", parachute: "worn" });
  expect(glider).toContain("throws off the canopy");
  expect(glider).toContain("You wear a parachute");
  expect(glider).not.toMatch(/fires the aircraft's parachute|propeller|extinguisher|the door opens/);
  const sport = words({
    entry: "canopy",
    belts: "harness",
    parachute: "aircraft",
    extinguisher: "between the seats",
  });
  expect(sport).toContain("fires the aircraft's parachute");
  expect(sport).toContain("The fire extinguisher is between the seats.");
  expect(sport).not.toMatch(/You wear|throws off/);
  const trainer = words({ entry: "doors", exits: "the window", belts: "shoulder belts", propeller: true });
  expect(trainer).toContain("use this door or the window. Move away from the propeller");
  expect(trainer).not.toMatch(/parachute|canopy/);
  // Nothing is invented for an aircraft whose file does not say.
  expect(words()).toContain("Your pilot shows you every way out");
  expect(words()).not.toMatch(/parachute|extinguisher|this handle/);
});

test("what a departure needs and nobody has entered is not assessed, subject by subject", () => {
  const day = { now: "2026-05-02T10:00:00.000Z", powered: true, conditions: [], sets: [] };
  const unknown = (one: Parameters<typeof judgeDeparture>[0]) =>
    judgeDeparture(one)
      .judgements.filter(({ grade }) => grade === "unjudged")
      .map(({ cause }) => cause);
  expect(unknown(day)).toEqual([
    "unknown.light",
    "unknown.pilot",
    "unknown.wind",
    "unknown.visibility",
    "unknown.ceiling",
    "unknown.distances",
  ]);
  expect(unknown({ ...day, powered: false })).not.toContain("unknown.distances");
  expect(unknown({ ...day, ownUnknown: "so far" })).toContain("unknown.pilot");
  expect(unknown({ ...day, twin: true, input: input() })).toEqual([
    "unknown.light",
    "unknown.pilot",
    "unknown.visibility",
    "unknown.ceiling",
    "unknown.accelerate-stop",
  ]);
});
