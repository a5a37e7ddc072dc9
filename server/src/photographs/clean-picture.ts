import { PHOTOGRAPH_PX } from "@cravix/core/airworthiness/life/photograph";
import sharp from "sharp";

/** Maximum pixels; cameras have about fifty million. */
const MAX_PIXELS = 60_000_000;
// One thread: requests of others need the rest.
sharp.concurrency(1);
const FORMATS = ["jpeg", "png", "webp"];
const QUALITY = 80;

/** A photo without metadata: location, camera, thumbnails and profiles are removed. */
export interface CleanPicture {
  data: Buffer;
  width: number;
  height: number;
}

/**
 * Decodes and re-encodes a photo, upright, at limited size. Undefined for an unsupported or damaged file, or one with too many
 * pixels. Never throws for the input.
 */
export async function cleanPicture(sent: Uint8Array): Promise<CleanPicture | undefined> {
  try {
    const picture = sharp(sent, { limitInputPixels: MAX_PIXELS, failOn: "error", pages: 1 });
    const { format } = await picture.metadata();
    if (!FORMATS.includes(format ?? "")) return undefined;
    const { data, info } = await picture
      .rotate()
      .resize({ width: PHOTOGRAPH_PX, height: PHOTOGRAPH_PX, fit: "inside", withoutEnlargement: true })
      .webp({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height };
  } catch {
    return undefined;
  }
}
