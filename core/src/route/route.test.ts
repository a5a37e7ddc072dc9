import fc from "fast-check";
import type { PlanView } from "../aircraft/aircraft-type";
import { walkaroundOrder } from "../aircraft/preferences";
import { item } from "../testing/small-aircraft";
import {
  bestOrder,
  EXACT_UP_TO,
  OrderError,
  type OrderProblem,
  respectsPrecedence,
  routeLengthM,
} from "./best-order";
import { actualRoute, routeProblem } from "./route-problem";
import { isInside, walkingDistances } from "./walking-distance";

const plan = (walls: PlanView["walls"], metresPerUnit = 1): PlanView => ({
  width: 100,
  height: 100,
  bodies: [],
  metresPerUnit,
  ...(walls && { walls }),
});
const WALL: [number, number][] = [
  [4, -3],
  [6, -3],
  [6, 3],
  [4, 3],
];

describe("the way on foot between two spots", () => {
  test("is straight where nothing stands between, in metres by the plan's scale", () => {
    const [row] = walkingDistances(plan([]), [
      { x: 0, y: 0 },
      { x: 3, y: 4 },
    ]);
    expect(row).toEqual([0, 5]);
    expect(
      walkingDistances(plan([], 0.03), [
        { x: 0, y: 0 },
        { x: 100, y: 0 },
      ])[0]?.[1],
    ).toBeCloseTo(3);
  });

  test("goes round a wall by its corners (plane geometry: two legs of 5 and the wall's 2)", () => {
    const [row] = walkingDistances(plan([WALL]), [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
    ]);
    expect(row?.[1]).toBeCloseTo(5 + 2 + 5, 9);
  });

  test("runs along a wall and past a corner without a detour", () => {
    const [row] = walkingDistances(plan([WALL]), [
      { x: 0, y: 3 },
      { x: 10, y: 3 },
      { x: 4, y: -3 },
    ]);
    expect(row?.[1]).toBeCloseTo(10);
    expect(row?.[2]).toBeCloseTo(Math.hypot(4, 6));
  });

  test("is the same in both directions, never shorter than the straight line, and keeps the triangle's rule", () => {
    const spot = fc.record({ x: fc.integer({ min: -5, max: 15 }), y: fc.integer({ min: -8, max: 8 }) });
    const outside = spot.filter(
      (s) =>
        !isInside(
          s,
          WALL.map(([x, y]) => ({ x, y })),
        ),
    );
    fc.assert(
      fc.property(outside, outside, outside, (a, b, c) => {
        const d = walkingDistances(plan([WALL]), [a, b, c]);
        const at = (i: number, k: number) => d[i]?.[k] ?? Number.NaN;
        expect(at(0, 1)).toBeCloseTo(at(1, 0), 9);
        expect(at(0, 1)).toBeGreaterThanOrEqual(Math.hypot(a.x - b.x, a.y - b.y) - 1e-9);
        expect(at(0, 2)).toBeLessThanOrEqual(at(0, 1) + at(1, 2) + 1e-9);
      }),
    );
  });

  test("is not known without a scale", () => {
    expect(() => walkingDistances({ width: 1, height: 1, bodies: [] }, [])).toThrow("no scale");
  });
});

/** Tries every order. */
function bruteForce(problem: OrderProblem): number {
  const n = problem.distances.length;
  let least = Number.POSITIVE_INFINITY;
  const visit = (order: number[], left: number[]) => {
    if (left.length === 0) {
      const starts = problem.start === undefined || order[0] === problem.start;
      if (starts && respectsPrecedence(order, problem.precedence ?? []))
        least = Math.min(least, routeLengthM(problem, order));
      return;
    }
    for (const next of left)
      visit(
        [...order, next],
        left.filter((i) => i !== next),
      );
  };
  visit(
    [],
    Array.from({ length: n }, (_, i) => i),
  );
  return least;
}

const metre = fc.integer({ min: 1, max: 60 });
/** Rules always from a smaller to a larger number, so that they never contradict each other. */
const problems = (min: number, max: number) =>
  fc.integer({ min, max }).chain((n) =>
    fc.record({
      distances: fc.array(fc.array(metre, { minLength: n, maxLength: n }), { minLength: n, maxLength: n }),
      door: fc.option(fc.array(metre, { minLength: n, maxLength: n }), { nil: undefined }),
      precedence: fc.array(
        fc
          .tuple(fc.integer({ min: 0, max: n - 1 }), fc.integer({ min: 0, max: n - 1 }))
          .map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as [number, number])
          .filter(([a, b]) => a !== b),
        { maxLength: 4 },
      ),
    }),
  );

describe("the best order of a route", () => {
  test("is as short as the shortest of all orders that keep the rules (brute force on small cases)", () => {
    fc.assert(
      fc.property(problems(2, 6), ({ distances, door, precedence }) => {
        const problem = { distances, precedence, ...(door && { door }) };
        const found = bestOrder(problem);
        expect(found.exact).toBe(true);
        expect([...found.order].sort()).toEqual(distances.map((_, i) => i));
        expect(respectsPrecedence(found.order, precedence)).toBe(true);
        expect(found.metres).toBeCloseTo(routeLengthM(problem, found.order), 9);
        expect(found.metres).toBeCloseTo(bruteForce(problem), 9);
      }),
      { numRuns: 150 },
    );
  });

  test("begins where the pilot begins", () => {
    fc.assert(
      fc.property(problems(3, 6), ({ distances }) => {
        const problem = { distances, start: 0 };
        expect(bestOrder(problem).order[0]).toBe(0);
        expect(bestOrder(problem).metres).toBeCloseTo(bruteForce(problem), 9);
      }),
      { numRuns: 40 },
    );
  });

  test("goes round a circle in order (geometry: the polygon through points of a circle is their shortest tour)", () => {
    const n = EXACT_UP_TO;
    const at = (i: number) => ({ x: Math.cos((2 * Math.PI * i) / n), y: Math.sin((2 * Math.PI * i) / n) });
    const points = [5, 0, 11, 3, 14, 7, 1, 9, 12, 2, 15, 6, 10, 4, 13, 8].map(at);
    const distances = walkingDistances(plan([]), points);
    // The door is at the first point: the way back is the polygon's last side.
    const found = bestOrder({ distances, door: distances[0] as number[], start: 0 });
    expect(found.metres).toBeCloseTo(n * 2 * Math.sin(Math.PI / n), 6);
  });

  test("above sixteen stations is a good one that keeps the rules, and says that it is not proven", () => {
    const n = EXACT_UP_TO + 6;
    const points = Array.from({ length: n }, (_, i) => ({ x: (i * 7) % n, y: (i * 5) % 4 }));
    const distances = walkingDistances(plan([]), points);
    const precedence: [number, number][] = [
      [20, 3],
      [7, 1],
    ];
    const found = bestOrder({ distances, precedence });
    expect(found.exact).toBe(false);
    expect([...found.order].sort((a, b) => a - b)).toEqual(points.map((_, i) => i));
    expect(respectsPrecedence(found.order, precedence)).toBe(true);
    const asListed = points.map((_, i) => i);
    expect(found.metres).toBeLessThan(0.6 * routeLengthM({ distances }, asListed));
  });

  test("is rejected where the rules contradict each other, and is nothing for no stations", () => {
    const distances = [
      [0, 1],
      [1, 0],
    ];
    expect(() =>
      bestOrder({
        distances,
        precedence: [
          [0, 1],
          [1, 0],
        ],
      }),
    ).toThrow(OrderError);
    expect(() => bestOrder({ distances, precedence: [[1, 0]], start: 0 })).toThrow("cannot start there");
    expect(bestOrder({ distances: [] })).toEqual({ order: [], metres: 0, exact: true });
  });
});

describe("a route as it was walked", () => {
  const stations = ["a", "b", "c"].map((id, i) => ({ id, name: id, phase: "lap" as const, x: 10 * i, y: 0 }));
  const problem = routeProblem({
    plan: { ...plan([]), door: { x: 0, y: 0 } },
    stations,
    items: [item("one", "a"), item("two", "b"), item("three", "c", { touches: ["propeller"] })],
    rules: [{ id: "r", first: "two", waits: { touches: "propeller" }, why: "why" }],
  });

  test("knows the rules between its stations", () => {
    expect(problem?.precedence).toEqual([[1, 2]]);
  });

  test("counts the metres there and back, and what was walked twice", () => {
    if (!problem) throw new Error("no problem");
    expect(actualRoute(problem, ["a", "b", "c"])).toEqual({ metres: 40, backtrackMetres: 0, returns: 0 });
    // a, c, back to b, c again: ten metres more out, ten back.
    expect(actualRoute(problem, ["a", "cockpit", "c", "b", "b", "c"])).toMatchObject({
      metres: 60,
      returns: 1,
    });
    expect(actualRoute(problem, [])).toEqual({ metres: 0, backtrackMetres: 0, returns: 0 });
  });

  test("is nothing for a plan without a scale", () => {
    expect(routeProblem({ stations, items: [], plan: { width: 1, height: 1, bodies: [] } })).toBeUndefined();
  });
});

describe("the route in a pilot's own order", () => {
  const stations = ["a", "b", "c", "d"].map((id) => ({ id }));
  const preferences = {
    method: "read-and-do",
    hand: "as listed",
    surfaces: "moved",
    brake: "brake first",
    afterInterruption: "start of the station",
  } as const;
  const ids = (part: object) => walkaroundOrder(stations, { ...preferences, ...part }).map((s) => s.id);

  test("begins at his station and goes his way round", () => {
    expect(ids({})).toEqual(["a", "b", "c", "d"]);
    expect(ids({ start: "c" })).toEqual(["c", "d", "a", "b"]);
    expect(ids({ start: "c", hand: "the other way round" })).toEqual(["c", "b", "a", "d"]);
  });

  test("loses no station that his order does not name, and invents none", () => {
    expect(ids({ order: ["d", "a", "gone", "c"] })).toEqual(["d", "a", "b", "c"]);
    expect(ids({ order: [] })).toEqual(["a", "b", "c", "d"]);
  });
});
