import { judgeSides } from "./judge-sides";

const psi = (left: number, right: number) =>
  judgeSides({
    id: "oil.pressure",
    what: "Oil pressure",
    left: { value: left, unit: "psi" },
    right: { value: right, unit: "psi" },
  });

test("two engines that stand alike, and two that do not (common practice)", () => {
  expect(psi(72, 70)).toMatchObject({ grade: "within limits", reading: { value: 2 }, margin: { value: 10 } });
  expect(psi(72, 55)).toMatchObject({ grade: "watch", margin: { value: -5 } });
  expect(psi(72, 55)?.sentence).toContain("17 psi difference");
});

test("whichever side is named first", () => {
  for (const [a, b] of [
    [60, 80],
    [72, 71],
    [0, 75],
  ] as const)
    expect(psi(a, b)?.grade).toBe(psi(b, a)?.grade);
});

test("claims nothing where no usual distance is known, or the units differ", () => {
  const left = { value: 1, unit: "psi" } as const;
  expect(judgeSides({ id: "hours", what: "Hours", left, right: left })).toBeUndefined();
  expect(
    judgeSides({ id: "oil.pressure", what: "Oil", left, right: { value: 1, unit: "°F" } }),
  ).toBeUndefined();
});
