/** Stick or wheel position, seen by the pilot. */
export const STICK_CORNERS = ["forward left", "forward right", "back right", "back left"] as const;
export type StickCorner = (typeof STICK_CORNERS)[number];

/** Stick direction at a corner: across −1 left, 1 right; back −1 forward, 1 back. */
export const CORNER: Record<StickCorner, { across: -1 | 1; back: -1 | 1 }> = {
  "forward left": { across: -1, back: -1 },
  "forward right": { across: 1, back: -1 },
  "back right": { across: 1, back: 1 },
  "back left": { across: -1, back: 1 },
};

export type SurfacePlace = "up" | "down" | "neutral";

/** Expected surface positions. Rudder: direction of its trailing edge. */
export interface SurfacePlaces {
  leftAileron: SurfacePlace;
  rightAileron: SurfacePlace;
  elevator: SurfacePlace;
  rudder: "left" | "right" | "neutral";
}

/**
 * Surface positions for a corner of the box: stick left raises the left aileron, stick back raises the elevator. A thumb on top
 * of the wheel points to the raised aileron. Source: FAA-H-8083-3, ground operations (from memory); thumbs: common practice.
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

/** Spoken text at a corner: which aileron is up, and the elevator. */
export function cornerText(corner: StickCorner): string {
  const { leftAileron, elevator } = surfacesFor(corner);
  return `${leftAileron === "up" ? "Left" : "Right"} aileron up, thumbs point at it; elevator ${elevator}`;
}
