/** Maximum photos per discrepancy. */
export const MAX_PHOTOGRAPHS = 5;

/** Longer side of a photo after scaling on the device, pixels: enough to show a crack, small enough for a mobile connection. */
export const PHOTOGRAPH_PX = 1600;

/** One photo of a discrepancy. The image is stored beside the record, under its content hash. */
export interface Photograph {
  /** Content hash, sha256:… */
  photograph: string;
  width: number;
  height: number;
}
