import { spawn, spawnSync } from "node:child_process";
import { once } from "node:events";
import { mkdtempSync, readFileSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { atLeast, atMost, plain, quantile, within } from "./bench/figure";
import { schemaFiles } from "./schema-files";
import { freePort, portError } from "./site/ports";

test("a free port can be listened on, a taken one says why not", async () => {
  const port = await freePort();
  expect(await portError(port, "127.0.0.1")).toBeUndefined();
  const taken = createServer();
  await new Promise<void>((resolve) => taken.listen(port, "127.0.0.1", resolve));
  expect(await portError(port, "127.0.0.1")).toBe("EADDRINUSE");
  await new Promise((resolve) => taken.close(resolve));
});

test("a figure is a ratio to its baseline, and says whether its aim holds", () => {
  expect(atMost("x", 30, "ms", 15, 2)).toEqual({
    name: "x",
    value: 30,
    unit: "ms",
    baseline: 15,
    ratio: 2,
    aim: "ratio ≤ 2",
    holds: true,
  });
  expect(atMost("x", 31, "ms", 15, 2).holds).toBe(false);
  expect(atLeast("x", 49, "events/s", 100, 0.5)).toMatchObject({
    ratio: 0.49,
    aim: "ratio ≥ 0.5",
    holds: false,
  });
});

test("a figure may have a bound of its own, or none at all", () => {
  expect(within("x", 4, "ms", 2, 5)).toMatchObject({ ratio: 2, aim: "≤ 5 ms", holds: true });
  expect(within("x", 6, "ms", 2, 5).holds).toBe(false);
  expect(plain("x", 6, "ms", 3)).toEqual({ name: "x", value: 6, unit: "ms", baseline: 3, ratio: 2 });
});

test("the published schemas are those that check the files", () => {
  for (const { path, text } of schemaFiles())
    expect(JSON.parse(readFileSync(path, "utf8"))).toEqual(JSON.parse(text));
});

test("quantiles are values that were measured", () => {
  const values = [5, 1, 4, 2, 3];
  expect([0.5, 0.99, 0.2].map((q) => quantile(values, q))).toEqual([3, 5, 1]);
});

test.each([
  [
    ["nonsense"],
    {},
    "cravix: unknown task nonsense. Choose one of start, test, bench, screenshots, schemas, icons, robustness, check-projections, list-differences.",
  ],
  [["start"], { PORT: "no port" }, "cravix: PORT is no port; it must be a number from 1 to 65535."],
])("%j with %j is one clear line", (args, env, line) => {
  const run = spawnSync(process.execPath, [join(__dirname, "..", "bootstrap.mjs"), ...args], {
    encoding: "utf8",
    env: { ...process.env, ...env },
  });
  expect(run.status).toBe(1);
  expect(run.stderr.trim().split("\n").at(-1)).toBe(line);
});

test("databases that are made at one moment on one machine do not clear away each other's work", async () => {
  const script = `const { startDatabase } = await import(${JSON.stringify(join(__dirname, "site", "mariadb.ts"))});
    await (await startDatabase(process.argv[1])).stop();`;
  const made = [1, 2, 3, 4].map(async () => {
    const directory = mkdtempSync(join(tmpdir(), "cravix-made-"));
    const child = spawn(
      process.execPath,
      ["--import", "tsx", "--input-type=module", "-e", script, directory],
      {
        stdio: ["ignore", "ignore", "pipe"],
      },
    );
    let said = "";
    child.stderr.on("data", (data) => {
      said += data;
    });
    const [status] = await once(child, "close");
    rmSync(directory, { recursive: true, force: true });
    return status === 0 ? "made" : said;
  });
  expect(await Promise.all(made)).toEqual(["made", "made", "made", "made"]);
}, 120_000);

test("a database whose server was killed before it wrote its process down is found and taken over", async () => {
  // In a separate process, independent of the tests' module loader.
  const script = `const { startDatabase } = await import(${JSON.stringify(join(__dirname, "site", "mariadb.ts"))});
    const { readFileSync, writeFileSync } = await import("node:fs");
    const file = process.argv[1] + "/database.json";
    const first = await startDatabase(process.argv[1]);
    const settings = JSON.parse(readFileSync(file, "utf8"));
    writeFileSync(file, JSON.stringify({ ...settings, pid: 0, port: 1 }));
    const second = await startDatabase(process.argv[1]);
    console.log(JSON.stringify({ adopted: second.adopted, same: second.pid === first.pid && second.options.port === first.options.port, written: JSON.parse(readFileSync(file, "utf8")).pid === first.pid }));
    await second.stop();`;
  const directory = mkdtempSync(join(tmpdir(), "cravix-found-"));
  const child = spawn(process.execPath, ["--import", "tsx", "--input-type=module", "-e", script, directory], {
    stdio: ["ignore", "pipe", "pipe"],
  });
  let said = "";
  for (const stream of [child.stdout, child.stderr])
    stream.on("data", (data) => {
      said += data;
    });
  await once(child, "close");
  rmSync(directory, { recursive: true, force: true });
  expect(said.trim().split("\n").at(-1)).toBe(JSON.stringify({ adopted: true, same: true, written: true }));
}, 120_000);
