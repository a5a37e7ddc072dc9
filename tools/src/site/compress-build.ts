import { readdir, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants, gzip } from "node:zlib";

const TEXT = /\.(html|js|css|svg|json|webmanifest)$/;
/** Smaller files gain nothing. */
const SMALLEST_BYTES = 1024;
const packedByGzip = promisify(gzip);
const packedByBrotli = promisify(brotliCompress);

/**
 * Writes a gzip and a Brotli copy beside each text file, so that it is compressed once, at the highest level. Returns the number
 * of files.
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
