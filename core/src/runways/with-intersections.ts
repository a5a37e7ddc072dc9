import type { Airfield, Runway } from "../aircraft/aircraft-type";

/** A runway as it is from an intersection: its declared distances, and the landmarks beyond it. */
function fromIntersection(
  runway: Runway,
  { name, declared }: NonNullable<Runway["intersections"]>[number],
): Runway {
  const { intersections: _, marks = [], declared: whole, ...rest } = runway;
  // Marks are measured from the start of the take-off.
  const skipped = whole && whole.toraM - declared.toraM;
  const left =
    skipped === undefined
      ? []
      : marks.flatMap((mark) => (mark.atM > skipped ? [{ ...mark, atM: mark.atM - skipped }] : []));
  return {
    ...rest,
    id: `${runway.id}-${name}`,
    lengthM: declared.toraM,
    // Landings use the whole runway.
    declared: { ...declared, ...(whole && { ldaM: whole.ldaM }) },
    ...(left.length > 0 && { marks: left }),
  };
}

/**
 * An airfield whose take-offs from intersections are runways of their own, "24-B", with their own declared distances. Complexity:
 * O(runways · intersections).
 */
export function withIntersections<F extends Pick<Airfield, "runways">>(airfield: F): F {
  if (!airfield.runways.some(({ intersections }) => intersections)) return airfield;
  return {
    ...airfield,
    runways: airfield.runways.flatMap(({ intersections = [], ...runway }) => [
      runway,
      ...intersections.map((one) => fromIntersection(runway, one)),
    ]),
  };
}
