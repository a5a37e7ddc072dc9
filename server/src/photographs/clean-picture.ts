import { PHOTOGRAPH_PX } from "@cravix/core";
import sharp from "sharp";

/** A camera's whole picture has some fifty megapixels; what unpacks to more is no photograph. */
const MOST_PIXELS = 60_000_000;
const FORMATS = ["jpeg", "png", "webp"];
const QUALITY = 80;

/** A picture without anything but the picture: position, maker, thumbnails and profiles are gone. */
export interface CleanPicture {
  data: Buffer;
  width: number;
  height: number;
}

/**
 * Reads a picture and makes it anew, upright, no larger than a photograph is here. Undefined for what is no picture of a kind that is taken, is torn, or would
 * unpack to more than a camera takes. Never throws for what was sent.
 */
export async function cleanPicture(sent: Uint8Array): Promise<CleanPicture | undefined> {
  try {
    const picture = sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: "error", pages: 1 });
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
