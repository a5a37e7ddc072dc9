import { shapeOf } from "@cravix/contract/simulated-engine";
import { readTraceCsv } from "@cravix/contract/trace";
import { readRunUp, type TraceLine } from "@cravix/core/run-up";
import { tarrow4 } from "@cravix/demo";
import { type TestApp, testApp } from "../../testing/test-app";
import { IDLE_MS, MAX_FOR_ONE, MAX_MONITORS, Monitors } from "./monitors";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

/** Reads a number of samples of a stream, and its session. */
async function listen(query: string, lines: number, onSession?: (id: string) => Promise<void>) {
  const response = await app.request(`/api/v1/monitor/stream?${query}`);
  expect(response.headers.get("content-type")).toContain("text/event-stream");
  const reader = response.body?.getReader();
  const decoder = new TextDecoder();
  const found: TraceLine[] = [];
  let id = "";
  let text = "";
  while (reader && found.length < lines) {
    const { value, done } = await reader.read();
    if (done) break;
    text += decoder.decode(value, { stream: true });
    const parts = text.split("\n\n");
    text = parts.pop() ?? "";
    for (const part of parts) {
      const data = /^data: (.*)$/m.exec(part)?.[1] ?? "null";
      if (part.includes("event: session")) {
        id = JSON.parse(data).id;
        await onSession?.(id);
      } else found.push(...JSON.parse(data));
    }
  }
  await reader?.cancel();
  return { id, found };
}

describe("the simulated engine monitor", () => {
  test("sends lines as an engine monitor does, and its pilot does what is reported", async () => {
    const { found } = await listen("registration=QX-TAR&seed=3&speed=40", 260, async (id) => {
      const told = await app.request(`/api/v1/monitor/${id}/do`, { step: "run-up" });
      expect(told.status).toBe(200);
    });
    const first = found[0] as TraceLine;
    const last = found.at(-1) as TraceLine;
    expect(first.rpm).toBeLessThan(1100);
    expect(last.rpm).toBeGreaterThan(1700);
    expect(last.egt).toHaveLength(4);
    expect(found.every((line, i) => i === 0 || line.t > (found[i - 1]?.t ?? 0))).toBe(true);
  });

  test("is switched off with its stream", async () => {
    const { id } = await listen("registration=QX-TAR&speed=40", 20);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect((await app.request(`/api/v1/monitor/${id}/do`, { step: "run-up" })).status).toBe(404);
  });

  test("runs ahead of no one who says up to where it was heard, and continues what is heard", async () => {
    let id = "";
    const say = (t: number) => app.request(`/api/v1/monitor/${id}/heard`, { t });
    // Without further acknowledgement it sends a few seconds and waits.
    let heard = 0;
    const told = listen("registration=QX-TAR&speed=40", 60, async (session) => {
      id = session;
      expect((await say(0)).status).toBe(204);
    }).then(({ found }) => {
      heard = found.length;
    });
    await new Promise((resolve) => setTimeout(resolve, 600));
    expect(heard).toBe(0);
    await say(5);
    await told;
    expect(heard).toBeGreaterThanOrEqual(60);
    expect((await say(-1)).status).toBe(422);
  });

  test("waits from its first line on, where it is shown that it has to", async () => {
    let heard = 0;
    const told = listen("registration=QX-TAR&speed=40&waits=yes", 60, async (session) => {
      setTimeout(() => void app.request(`/api/v1/monitor/${session}/heard`, { t: 5 }), 600);
    }).then(({ found }) => {
      heard = found.length;
    });
    await new Promise((resolve) => setTimeout(resolve, 400));
    // Sixty samples are six seconds: not reached without acknowledgement.
    expect(heard).toBe(0);
    await told;
    expect(heard).toBeGreaterThanOrEqual(60);
  });

  test("gives a whole run-up as a file, with the fault that was simulated in it", async () => {
    const response = await app.request(
      "/api/v1/monitor/run-up.csv?registration=QX-TAR&fault=dead%20plug&cylinder=3&side=left&seed=5",
    );
    const { trace, faults } = readTraceCsv(await response.text());
    expect(faults).toEqual([]);
    const reading = tarrow4.runUp && readRunUp(trace, tarrow4.runUp);
    expect(reading?.left?.egtChange[3]).toBeLessThan(-150);
    // On right nothing changes for cylinder 3, which had only that plug all along; the others get hotter.
    expect(reading?.right?.egtChange[1]).toBeGreaterThan(15);
  });

  test.each([
    ["an aircraft that is not there", "registration=QX-NON", 404],
    ["a glider", "registration=QX-ANS", 422],
    ["a trouble that it does not know", "registration=QX-TAR&fault=gremlins", 422],
    ["a cylinder that it has not got", "registration=QX-TAR&fault=dead%20plug&cylinder=7", 422],
    ["no aircraft at all", "", 422],
  ])("rejects %s", async (_, query, status) => {
    expect((await app.request(`/api/v1/monitor/stream?${query}`)).status).toBe(status);
  });

  test("rejects a step that no one knows, and what is no JSON", async () => {
    await listen("registration=QX-TAR&speed=40", 20, async (id) => {
      expect((await app.request(`/api/v1/monitor/${id}/do`, { step: "loop" })).status).toBe(422);
      expect((await app.request(`/api/v1/monitor/${id}/do`, "{")).status).toBe(400);
    });
  });

  test("runs no more at once than it can, and forgets those no one touches", () => {
    const monitors = new Monitors();
    for (let i = 0; i < MAX_MONITORS; i++)
      expect(monitors.open(optionsHere(), 0, `client ${i % 4}`)).toBeDefined();
    expect(monitors.open(optionsHere(), 1000)).toBeUndefined();
    expect(monitors.open(optionsHere(), 3_600_000)).toBeDefined();
  });

  test("to be heard is no telling: it is switched off all the same", () => {
    const monitors = new Monitors();
    const { id } = monitors.open(optionsHere(), 0) ?? { id: "" };
    expect(monitors.heard(id, 12)).toBe(true);
    expect(monitors.heard("another", 12)).toBe(false);
    expect(monitors.runs(id, IDLE_MS + 1)).toBe(false);
  });

  test("gives one client a part of them only, and switches off the one whose pilot is reported nothing for long", () => {
    const monitors = new Monitors();
    for (let i = 0; i < MAX_FOR_ONE; i++) expect(monitors.open(optionsHere(), 0, "one")).toBeDefined();
    expect(monitors.open(optionsHere(), 0, "one")).toBeUndefined();
    const other = monitors.open(optionsHere(), 0, "another");
    const told = monitors.open(optionsHere(), 0, "another");
    monitors.find(told?.id ?? "", IDLE_MS - 1);
    // Sending samples does not count as activity.
    expect(monitors.runs(other?.id ?? "", IDLE_MS)).toBe(true);
    expect(monitors.runs(other?.id ?? "", IDLE_MS + 1)).toBe(false);
    expect(monitors.runs(told?.id ?? "", IDLE_MS + 1)).toBe(true);
  });
});

function optionsHere() {
  const shape = shapeOf(tarrow4);
  if (!shape) throw new Error("the trainer has an engine");
  return {
    shape,
    runUpRpm: 1800,
    clearRpm: 2000,
    air: { pressureHpa: 1013, celsius: 15, humidity: 0.5 },
    fault: { kind: "none" as const },
    severity: 0,
    seed: 1,
  };
}
