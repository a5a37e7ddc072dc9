import { PHOTOGRAPH_PX } from "@cravix/core";
import { DeviceError } from "../log/database";

/** A picture as it is kept and sent: small, upright, and nothing but the picture. */
export interface SmallPicture {
  bytes: Uint8Array<ArrayBuffer>;
  type: string;
  width: number;
  height: number;
}

/** What the server takes at once, with room to spare. */
const MOST_BYTES = 1_500_000;
const QUALITIES = [0.8, 0.6, 0.4];

/**
 * Makes a picture small on the device itself: drawn anew, so that where and with what it was taken stays behind. Throws DeviceError with a sentence for what is
 * no picture.
 */
export async function makeSmall(file: Blob): Promise<SmallPicture> {
  let drawn: ImageBitmap;
  try {
    drawn = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new DeviceError("This file is not a photo this browser can read. Choose a JPEG, PNG or WebP.");
  }
  const scale = Math.min(1, PHOTOGRAPH_PX / Math.max(drawn.width, drawn.height));
  const width = Math.max(1, Math.round(drawn.width * scale));
  const height = Math.max(1, Math.round(drawn.height * scale));
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext("2d")?.drawImage(drawn, 0, 0, width, height);
  drawn.close();
  for (const quality of QUALITIES)
    for (const type of ["image/webp", "image/jpeg"]) {
      const blob = await canvas.convertToBlob({ type, quality });
      // A browser that does not know a kind makes a PNG of it, which is large.
      if (blob.type !== type || blob.size > MOST_BYTES) continue;
      return { bytes: new Uint8Array(await blob.arrayBuffer()), type, width, height };
    }
  throw new DeviceError("This photo is too large to send. Take another one, closer.");
}
