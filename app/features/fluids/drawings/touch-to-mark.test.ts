import type { Tank } from "@cravix/core/fuel/tanks/tank";
import halden from "../../../../demo/data/type-halden-six.json";
import tarrow from "../../../../demo/data/type-tarrow-4.json";
import { gaugeAtPoint } from "./gauge-drawing";
import { glassAtHeight } from "./glass-drawing";
import { dipstickScale, levelAtHeight } from "./oil-dipstick";
import { dipAtHeight, heightOfDip } from "./tank-drawing";

const left = tarrow.fuel.tanks[0] as unknown as Tank;

test("a finger on the dipstick sets the half centimetre that lies there, and never beyond its ends", () => {
  for (const dip of [0, 5.5, 16, 25]) expect(dipAtHeight(left, heightOfDip(left, dip) / 170)).toBe(dip);
  expect(dipAtHeight(left, heightOfDip(left, 16.2) / 170)).toBe(16);
  expect([dipAtHeight(left, 0), dipAtHeight(left, 1)]).toEqual([25, 0]);
});

test("close to a tab it is the tab", () => {
  const main = halden.fuel.tanks[0] as unknown as Tank;
  const dip = dipAtHeight(main, heightOfDip(main, 14.1) / 170);
  // The tab is at 92 L: by the calibration slightly above 14 cm, between two half centimetres.
  expect(dip).toBeGreaterThan(14);
  expect(dip).toBeLessThan(14.5);
});

test("a finger on the dial turns the pointer to the nearest mark", () => {
  const gauge = left.gauge as NonNullable<Tank["gauge"]>;
  const at = (part: number) => {
    const angle = Math.PI * (1 - part);
    return gaugeAtPoint(gauge, (100 + 60 * Math.cos(angle)) / 200, (104 - 60 * Math.sin(angle)) / 122);
  };
  expect([at(0), at(0.5), at(1)]).toEqual([0, 13, 26]);
  // Below the dial: its nearer end.
  expect(gaugeAtPoint(gauge, 0.1, 1)).toBe(0);
  expect(gaugeAtPoint(gauge, 0.9, 1)).toBe(26);
});

test("the oil dipstick is marked in halves, a short one in tenths; the glass in twentieths", () => {
  const scale = dipstickScale({ ...tarrow.oil, containerQt: 1 } as never, 9);
  expect(scale).toEqual({ from: 4, to: 9, step: 0.5 });
  expect([levelAtHeight(scale, 0), levelAtHeight(scale, 1)]).toEqual([9, 4]);
  expect(levelAtHeight(scale, 0.5) % 0.5).toBe(0);
  expect(dipstickScale({ minimumQt: 2.6, maximumQt: 3.2 } as never, 4).step).toBe(0.1);
  expect([glassAtHeight(0), glassAtHeight(0.5), glassAtHeight(1)]).toEqual([100, 50, 0]);
});
