import { sha256 } from "@noble/hashes/sha2";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils";
import canonicalize from "canonicalize";

/** A value as canonical JSON (RFC 8785): the same words whatever the order of its keys. */
export function canonicalJson(value: unknown): string {
  return canonicalize(value) ?? "null";
}

/** The content hash that pins a file or a list: SHA-256 over its canonical JSON (RFC 8785), whatever its key order. */
export function contentHash(value: unknown): string {
  return `sha256:${bytesToHex(sha256(utf8ToBytes(canonicalJson(value))))}`;
}

/** The content hash of bytes as they are, for a picture. */
export function bytesHash(bytes: Uint8Array): string {
  return `sha256:${bytesToHex(sha256(bytes))}`;
}
