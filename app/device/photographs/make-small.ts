import { PHOTOGRAPH_PX } from "@cravix/core/airworthiness/life/photograph";
import { DeviceError } from "../log/database";

/** A photo as stored and sent: small, upright, without metadata. */
export interface SmallPicture {
  bytes: Uint8Array<ArrayBuffer>;
  type: string;
  width: number;
  height: number;
}

/** Below the server's limit. */
const MAX_BYTES = 1_500_000;
const QUALITIES = [0.8, 0.6, 0.4];

/**
 * Reduces a photo on the device by redrawing it, which removes location and camera data. Throws DeviceError for a file that is
 * not an image.
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
      // Browsers without support for a type produce a large PNG.
      if (blob.type !== type || blob.size > MAX_BYTES) continue;
      return { bytes: new Uint8Array(await blob.arrayBuffer()), type, width, height };
    }
  throw new DeviceError("This photo is too large to send. Take another one, closer.");
}
