import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { pathToFileURL } from "node:url";
import { ROOT } from "./paths";

const PACK = pathToFileURL(join(ROOT, "tools", "pack.mjs")).href;
let root: string;

/** Bundles in a separate process, as a start does. */
function pack(): { place: string; said: string } {
  const { stdout, stderr } = spawnSync(
    process.execPath,
    [
      "--input-type=module",
      "-e",
      `const { pack } = await import("${PACK}"); console.log(await pack("${root}"));`,
    ],
    { encoding: "utf8" },
  );
  return { place: stdout.trim(), said: stderr };
}
const run = (place: string) => spawnSync(process.execPath, [place], { encoding: "utf8" }).stdout;
const write = (path: string, text: string) => {
  mkdirSync(dirname(join(root, path)), { recursive: true });
  writeFileSync(join(root, path), text);
};

beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), "cravix-pack-"));
  for (const part of ["core", "contract", "demo"]) mkdirSync(join(root, part));
  write("tools/src/start.ts", 'import { where } from "./where";\nconsole.log("start" as string, where);\n');
  write("tools/src/where.ts", "export const where: string = import.meta.url;\n");
  write("server/src/worker-pool/jobs.ts", "export const work = (n: number) => [n, import.meta.url];\n");
});
afterEach(() => rmSync(root, { recursive: true, force: true }));

test("what is packed runs, and each file knows where it stood; the worker is beside it", async () => {
  const { place } = pack();
  expect(run(place)).toBe(`start ${pathToFileURL(join(root, "tools", "src", "where.ts")).href}\n`);
  const worker = pathToFileURL(join(dirname(place), "worker.mjs")).href;
  const asked = `const { work } = await import("${worker}"); console.log(JSON.stringify(work(7)));`;
  const { stdout } = spawnSync(process.execPath, ["--input-type=module", "-e", asked], { encoding: "utf8" });
  expect(JSON.parse(stdout)).toEqual([7, worker]);
});

test("it is packed once, again when a source has changed, and not for a test", () => {
  const { place } = pack();
  write("tools/src/where.test.ts", "test('nothing');\n");
  expect(pack().place).toBe(place);
  write("tools/src/where.ts", 'export const where = "elsewhere";\n');
  const changed = pack().place;
  expect(changed).not.toBe(place);
  expect(run(changed)).toBe("start elsewhere\n");
  // Bundles that another server may use are kept.
  expect(run(place)).toContain("where.ts");
});

test("a source that cannot be read is named, and nothing half packed is left", () => {
  write("tools/src/where.ts", "export const where = (;\n");
  const { place, said } = pack();
  expect(place).toBe("");
  expect(said).toMatch(/tools\/src\/where\.ts:1:\d+/);
  expect(readdirSync(join(root, ".cravix", "run"))).toEqual([]);
});

test("what is packed of Cravix itself holds its own files and no package", () => {
  const { stdout } = spawnSync(
    process.execPath,
    [
      "--input-type=module",
      "-e",
      `const { pack } = await import("${PACK}"); console.log(await pack("${ROOT}"));`,
    ],
    { encoding: "utf8" },
  );
  const packed = readFileSync(stdout.trim(), "utf8");
  expect(packed).toMatch(/from "@?[a-z-]+/);
  expect(packed).not.toMatch(/from "@cravix\//);
});
