import type { Photograph } from "@cravix/core/airworthiness/life/photograph";
import { deviceDatabase } from "../log/database";
import { makeSmall } from "./make-small";

/** Reduces and stores a photo before it is logged. Throws DeviceError if it is not an image. */
export async function savePicture(file: Blob): Promise<Photograph> {
  const { bytes, type, width, height } = await makeSmall(file);
  const { bytesHash } = await import("@cravix/contract/content-hash");
  const hash = bytesHash(bytes);
  const db = await deviceDatabase();
  if (!(await db.getKey("photographs", hash)))
    await db.put("photographs", { hash, bytes: bytes.buffer, type, state: "draft", at: Date.now() });
  return { photograph: hash, width, height };
}
