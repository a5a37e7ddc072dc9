import { sha256 } from "@noble/hashes/sha2";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils";
import canonicalize from "canonicalize";

/** Canonical JSON (RFC 8785), independent of key order. */
export function canonicalJson(value: unknown): string {
  return canonicalize(value) ?? "null";
}

/** Content hash of a file or checklist: SHA-256 over its canonical JSON (RFC 8785). */
export function contentHash(value: unknown): string {
  return `sha256:${bytesToHex(sha256(utf8ToBytes(canonicalJson(value))))}`;
}

/** Content hash of bytes, for photos. */
export function bytesHash(bytes: Uint8Array): string {
  return `sha256:${bytesToHex(sha256(bytes))}`;
}
