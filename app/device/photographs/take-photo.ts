import type { Photograph } from "@cravix/core";
import { deviceDatabase } from "../log/database";
import { makeSmall } from "./make-small";

/** Makes a picture small and keeps it, before anybody has logged what it is of. Throws DeviceError for what is none. */
export async function keepPicture(file: Blob): Promise<Photograph> {
  const { bytes, type, width, height } = await makeSmall(file);
  const { bytesHash } = await import("@cravix/contract/content-hash");
  const hash = bytesHash(bytes);
  const db = await deviceDatabase();
  if (!(await db.getKey("photographs", hash)))
    await db.put("photographs", { hash, bytes: bytes.buffer, type, state: "draft", at: Date.now() });
  return { photograph: hash, width, height };
}
