/** Where the stick or wheel is held, seen by the pilot. */
export const STICK_CORNERS = ["forward left", "forward right", "back right", "back left"] as const;
export type StickCorner = (typeof STICK_CORNERS)[number];

/** Which way the stick is held at a corner: across −1 left, 1 right; back −1 forward, 1 back. */
export const CORNER: Record<StickCorner, { across: -1 | 1; back: -1 | 1 }> = {
  "forward left": { across: -1, back: -1 },
  "forward right": { across: 1, back: -1 },
  "back right": { across: 1, back: 1 },
  "back left": { across: -1, back: 1 },
};

export type SurfacePlace = "up" | "down" | "neutral";

/** Where each surface has to stand. Rudder: which way its trailing edge points. */
export interface SurfacePlaces {
  leftAileron: SurfacePlace;
  rightAileron: SurfacePlace;
  elevator: SurfacePlace;
  rudder: "left" | "right" | "neutral";
}

/**
 * Where every surface must be for a corner of the box: stick left brings the left aileron up, stick back the elevator up. A thumb on top of the wheel
 * points at the aileron that is up. Source: FAA-H-8083-3, ground operations (from memory); thumbs: common practice.
 */
export function surfacesFor(
  corner: StickCorner,
  pedal: "left" | "right" | "neutral" = "neutral",
): SurfacePlaces {
  const { across, back } = CORNER[corner];
  return {
    leftAileron: across < 0 ? "up" : "down",
    rightAileron: across < 0 ? "down" : "up",
    elevator: back > 0 ? "up" : "down",
    rudder: pedal,
  };
}

/** What is said at a corner: which aileron is up, and the elevator. */
export function cornerWords(corner: StickCorner): string {
  const { leftAileron, elevator } = surfacesFor(corner);
  return `${leftAileron === "up" ? "Left" : "Right"} aileron up, thumbs point at it; elevator ${elevator}`;
}
