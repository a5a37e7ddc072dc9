import type { Source } from "@cravix/core/judgement/judgement";
import type { LoadingProfile } from "@cravix/core/mass-and-balance/loading-profile";

const handbook = (text: string): Source => ({
  kind: "handbook",
  text: `example value: ${text}`,
  example: true,
});
const limit = (value: number, text = "handbook, limitations") => ({ value, source: handbook(text) });
const envelope = (...corners: [kg: number, armMm: number][]): LoadingProfile["envelope"] => ({
  corners: corners.map(([kg, armMm]) => ({ kg, armMm })),
  source: handbook("handbook, weight and balance"),
});
const weighed = (date: string, emptyKg: number, armMm: number): LoadingProfile["weighing"] => ({
  date,
  emptyKg,
  armMm,
  source: handbook("the last weighing report"),
});

/** Mass and balance of the group's six aircraft: invented, typical of their kind. */
export const loadingFiles: LoadingProfile[] = [
  {
    format: "cravix.loading/1",
    registration: "QX-TAR",
    datum: "the firewall",
    weighing: weighed("2023-04-12", 742, 1000),
    stations: [
      { id: "front", name: "front seats", kind: "seat", armMm: 940, maxKg: 230, pilot: true },
      { id: "rear", name: "rear seats", kind: "seat", armMm: 1850, maxKg: 200 },
      { id: "bags", name: "baggage", kind: "baggage", armMm: 2420, maxKg: 54 },
      { id: "shelf", name: "aft shelf", kind: "baggage", armMm: 3120, maxKg: 22 },
    ],
    tanks: [
      { tank: "left", armMm: 1220 },
      { tank: "right", armMm: 1220 },
    ],
    groups: [{ name: "baggage and aft shelf", stations: ["bags", "shelf"], maxKg: 54 }],
    envelope: envelope([650, 890], [885, 890], [1110, 1000], [1110, 1200], [650, 1200]),
    maxTakeoffKg: limit(1110),
  },
  {
    format: "cravix.loading/1",
    registration: "QX-HLD",
    datum: "the nose of the spinner",
    weighing: weighed("2022-10-03", 1086, 2080),
    stations: [
      { id: "front", name: "front seats", kind: "seat", armMm: 2170, maxKg: 230, pilot: true },
      { id: "middle", name: "middle seats", kind: "seat", armMm: 2990, maxKg: 200 },
      { id: "rear", name: "rear seats", kind: "seat", armMm: 3860, maxKg: 170 },
      { id: "nose", name: "nose locker", kind: "baggage", armMm: 1070, maxKg: 45 },
      { id: "bags", name: "aft baggage", kind: "baggage", armMm: 4520, maxKg: 45 },
    ],
    tanks: [
      { tank: "left", armMm: 2380 },
      { tank: "right", armMm: 2380 },
      { tank: "left-tip", armMm: 2430 },
      { tank: "right-tip", armMm: 2430 },
    ],
    burn: [
      ["left-tip", "right-tip"],
      ["left", "right"],
    ],
    envelope: envelope([1000, 1980], [1250, 1980], [1635, 2230], [1635, 2440], [1000, 2440]),
    maxTakeoffKg: limit(1635),
    maxLandingKg: limit(1553),
    maxZeroFuelKg: limit(1560),
  },
  {
    format: "cravix.loading/1",
    registration: "QX-LUM",
    datum: "the leading edge of the wing",
    weighing: weighed("2024-05-20", 328, 330),
    stations: [
      { id: "seats", name: "seats", kind: "seat", armMm: 560, maxKg: 220, pilot: true },
      { id: "bags", name: "baggage", kind: "baggage", armMm: 1150, maxKg: 20 },
    ],
    tanks: [{ tank: "main", armMm: 760 }],
    envelope: envelope([320, 270], [600, 330], [600, 560], [320, 560]),
    maxTakeoffKg: limit(600),
  },
  {
    format: "cravix.loading/1",
    registration: "QX-DOV",
    datum: "the tip of the nose",
    weighing: weighed("2021-09-15", 1214, 2180),
    stations: [
      { id: "front", name: "front seats", kind: "seat", armMm: 2260, maxKg: 230, pilot: true },
      { id: "rear", name: "rear seats", kind: "seat", armMm: 3170, maxKg: 200 },
      { id: "nose", name: "nose baggage", kind: "baggage", armMm: 640, maxKg: 68 },
      { id: "bags", name: "aft baggage", kind: "baggage", armMm: 3910, maxKg: 90 },
    ],
    tanks: [
      { tank: "left", armMm: 2460 },
      { tank: "right", armMm: 2460 },
    ],
    envelope: envelope([1150, 2100], [1450, 2100], [1810, 2250], [1810, 2430], [1150, 2430]),
    maxTakeoffKg: limit(1810),
    maxLandingKg: limit(1724),
    maxZeroFuelKg: limit(1700),
  },
  {
    format: "cravix.loading/1",
    registration: "QX-COR",
    datum: "the leading edge of the wing at the root",
    weighing: weighed("2024-02-08", 1420, 520),
    stations: [
      { id: "front", name: "front seat", kind: "seat", armMm: 1010, maxKg: 110, pilot: true },
      { id: "rear", name: "rear seat", kind: "seat", armMm: 2330, maxKg: 110 },
      { id: "bags", name: "locker behind the rear seat", kind: "baggage", armMm: 2980, maxKg: 30 },
    ],
    tanks: [
      { tank: "left", armMm: 580 },
      { tank: "right", armMm: 580 },
    ],
    envelope: envelope([1350, 440], [1980, 500], [1980, 760], [1350, 760]),
    maxTakeoffKg: limit(1980),
  },
  {
    format: "cravix.loading/1",
    registration: "QX-ANS",
    datum: "the leading edge of the wing at the root",
    weighing: weighed("2023-03-30", 396, 590),
    stations: [
      { id: "front", name: "front seat", kind: "seat", armMm: -1250, maxKg: 110, minKg: 70, pilot: true },
      { id: "rear", name: "rear seat", kind: "seat", armMm: -140, maxKg: 110 },
      { id: "ballast", name: "ballast plates in the nose", kind: "ballast", armMm: -1830, maxKg: 15 },
    ],
    tanks: [],
    envelope: envelope([440, 150], [590, 100], [590, 420], [440, 420]),
    maxTakeoffKg: limit(590, "handbook, two-seat"),
    nonLifting: { emptyKg: 212, stations: ["front", "rear", "ballast"], max: limit(425) },
  },
];
