/** So many photographs one discrepancy has at most: more says no more. */
export const MOST_PHOTOGRAPHS = 5;

/** The longer side that a photograph is made to on the device, pixels: enough for a mechanic to see a crack, and small enough for the apron's network. */
export const PHOTOGRAPH_PX = 1600;

/** One photograph of a discrepancy. The picture itself is kept beside the record, under its content hash. */
export interface Photograph {
  /** Content hash, sha256:… */
  photograph: string;
  width: number;
  height: number;
}
