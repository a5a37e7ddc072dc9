import { readdir, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";

const TEXT = /\.(html|js|css|svg|json|webmanifest)$/;
/** Below this a packet is a packet. */
const SMALLEST_BYTES = 1024;
const packedByGzip = promisify(gzip);
const packedByBrotli = promisify(brotliCompress);

/**
 * Lays a gzipped and a Brotli copy beside each text of the build, so that no server packs the same megabytes anew for every page that is opened, and what
 * is packed once is packed as well as it can be. Returns how many files have one.
 */
export async function compressBuild(root: string): Promise<number> {
  const names = await readdir(root, { recursive: true });
  const packed = await Promise.all(
    names
      .filter((name) => TEXT.test(name))
      .map(async (name) => {
        const path = join(root, name);
        const text = await readFile(path);
        if (text.length < SMALLEST_BYTES) return false;
        const [gz, br] = await Promise.all([
          packedByGzip(text, { level: 9 }),
          packedByBrotli(text, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: text.length } }),
        ]);
        await Promise.all([writeFile(`${path}.gz`, gz), writeFile(`${path}.br`, br)]);
        return true;
      }),
  );
  return packed.filter(Boolean).length;
}
