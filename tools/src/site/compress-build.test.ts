import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { brotliDecompressSync, gunzipSync } from "node:zlib";
import { compressBuild } from "./compress-build";

test("each text of the build has two smaller copies that unpack to it; pictures and small files have none", async () => {
  const root = mkdtempSync(join(tmpdir(), "cravix-compress-"));
  try {
    const text = "const walk = around(the, aircraft);\n".repeat(400);
    writeFileSync(join(root, "page.js"), text);
    writeFileSync(join(root, "short.js"), "1");
    writeFileSync(join(root, "icon.png"), Buffer.alloc(5000));
    expect(await compressBuild(root)).toBe(1);
    expect(readdirSync(root).sort()).toEqual(["icon.png", "page.js", "page.js.br", "page.js.gz", "short.js"]);
    const gz = readFileSync(join(root, "page.js.gz"));
    const br = readFileSync(join(root, "page.js.br"));
    expect(gunzipSync(gz).toString()).toBe(text);
    expect(brotliDecompressSync(br).toString()).toBe(text);
    expect(Math.max(gz.length, br.length)).toBeLessThan(text.length / 10);
  } finally {
    rmSync(root, { recursive: true });
  }
});
