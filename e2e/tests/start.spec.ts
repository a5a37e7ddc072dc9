import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { freePort } from "../../tools/src/site/ports";
import { Cravix } from "../support/cravix";
import { expect, test } from "../support/test";

const health = async (cravix: Cravix) => (await fetch(`${cravix.url}/api/health`)).status;
const alive = (pid: number) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

test("a killed database is reported by the health check, restarted, and loses nothing; Ctrl-C stops both", async () => {
  const cravix = await Cravix.launch();
  expect(await health(cravix)).toBe(200);
  const count = async () => (await cravix.api<{ items: unknown[] }>("/preflights?limit=100")).items.length;
  const before = await count();
  expect(before).toBeGreaterThan(10);
  const first = cravix.databasePid;
  process.kill(first, "SIGKILL");
  await expect.poll(() => health(cravix)).toBe(503);
  await expect.poll(() => health(cravix), { timeout: 60_000 }).toBe(200);
  expect(cravix.databasePid).not.toBe(first);
  expect(await count()).toBe(before);

  const second = cravix.databasePid;
  await cravix.end("SIGINT");
  expect(alive(second)).toBe(false);

  await cravix.start();
  expect(await count()).toBe(before);
  await cravix.remove();
});

test("a port or a directory in use is reported in one clear line", async () => {
  const cravix = await Cravix.launch();
  const samePort = new Cravix(cravix.port);
  await expect(samePort.start()).rejects.toThrow(
    /cravix: port \d+ is in use by another program\. Choose another: PORT=/,
  );
  const sameDirectory = new Cravix(cravix.port + 1, cravix.directory);
  await expect(sameDirectory.start()).rejects.toThrow(/already runs on .*Stop it first, or set CRAVIX_DATA/);
  const nowhere = new Cravix(cravix.port + 1, "/proc/cravix");
  await expect(nowhere.start()).rejects.toThrow(/is not writable\. .*CRAVIX_DATA/);
  await cravix.remove();
});

test("of two simultaneous starts, one gets the directory and the other reports it in one line", async () => {
  const first = new Cravix(await freePort());
  const second = new Cravix(await freePort(), first.directory);
  const outcomes = await Promise.allSettled([first.start(), second.start()]);
  expect(outcomes.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
  const lost = outcomes.find((outcome) => outcome.status === "rejected");
  expect(String(lost?.reason)).toMatch(/cravix: Cravix already runs on .*\. Stop it first/);
  const winner = outcomes[0]?.status === "fulfilled" ? first : second;
  expect(await health(winner)).toBe(200);
  await winner.remove();
});

test("a hanging database does not block shutdown, and a missing settings file does not block the start", async () => {
  const cravix = await Cravix.launch();
  const pid = cravix.databasePid;
  process.kill(pid, "SIGSTOP");
  await expect.poll(() => health(cravix), { timeout: 60_000 }).toBe(503);
  const from = Date.now();
  await cravix.end("SIGTERM");
  expect(Date.now() - from).toBeLessThan(25_000);
  expect(alive(pid)).toBe(false);
  // As left by a disk that became full while writing.
  writeFileSync(join(cravix.directory, "database.json"), '{"password":"');
  await cravix.start();
  expect(await health(cravix)).toBe(200);
  await cravix.remove();
});
