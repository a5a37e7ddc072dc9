import type { Runway } from "../aircraft/aircraft-type";
import { withIntersections } from "./with-intersections";

const runway: Runway = {
  id: "24",
  headingDeg: 240,
  lengthM: 900,
  surface: "asphalt",
  declared: { toraM: 900, todaM: 950, asdaM: 900, ldaM: 850 },
  marks: [
    { name: "the first windsock", atM: 200 },
    { name: "the second windsock", atM: 600 },
  ],
  intersections: [{ name: "B", declared: { toraM: 550, todaM: 600, asdaM: 550, ldaM: 0 } }],
};

test("an intersection is a runway of its own, with its declared distances and the marks beyond it", () => {
  const { runways } = withIntersections({ runways: [runway] });
  expect(runways.map(({ id, lengthM }) => [id, lengthM])).toEqual([
    ["24", 900],
    ["24-B", 550],
  ]);
  // The second windsock stands 600 m from the threshold: 250 m from the intersection, which is 350 m down.
  expect(runways[1]).toMatchObject({
    declared: { todaM: 600, ldaM: 850 },
    marks: [{ name: "the second windsock", atM: 250 }],
  });
  expect(runways.every((one) => one.intersections === undefined)).toBe(true);
  const plain = { runways: [{ ...runway, intersections: undefined as never }] };
  expect(withIntersections(plain)).toBe(plain);
});
