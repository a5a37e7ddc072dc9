import { sha256 } from "@noble/hashes/sha2";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils";
import canonicalize from "canonicalize";

/** The content hash that pins a file or a list: SHA-256 over its canonical JSON (RFC 8785), whatever its key order. */
export function contentHash(value: unknown): string {
  return `sha256:${bytesToHex(sha256(utf8ToBytes(canonicalize(value) ?? "null")))}`;
}
