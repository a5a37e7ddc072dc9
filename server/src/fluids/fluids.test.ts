import type { Receipt } from "@cravix/contract";
import { readFluidCsv } from "@cravix/contract/logs";
import { litresOfFuel } from "@cravix/core/fuel/grade/fuel-amount";
import { fluidLogOf } from "@cravix/core/logs/fluid-rows";
import { oilTrend } from "@cravix/core/oil/oil-consumption";
import { group, pastYear, tarrow4 } from "@cravix/demo";
import { eventWriter, STARTED } from "../../testing/make-events";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { Pump } from "../pump/pump";
import { importFluids } from "./write-fluids";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const get = async (path: string) => {
  const response = await app.request(`/api/v1${path}`);
  return { status: response.status, body: await response.json() };
};
const post = async (path: string, body: string | object) => {
  const response = await app.request(`/api/v1${path}`, body);
  return { status: response.status, body: await response.json() };
};

const LOG = `time,registration,entry,tank,amount,unit,hours,grade,receipt
2026-03-01,QX-TAR,measured,left,60,L,4200,,
2026-03-01,QX-TAR,measured,right,58,L,4200,,
2026-03-02,QX-TAR,uplift,left,ten,L,4201,,
2026-03-02,QX-TAR,uplift,left,20,L,4201,100LL,0007
2026-03-03,QX-NON,uplift,left,20,L,4201,,
`;

describe("a log that comes in as a table", () => {
  test("keeps its good lines, names the bad ones, and takes nothing twice", async () => {
    const first = await post("/fuel-log", LOG);
    expect(first.body).toMatchObject({ taken: 3, repeated: 0 });
    expect(first.body.faults.map((f: { row: number; column: string }) => [f.row, f.column])).toEqual([
      [4, "amount"],
      [6, "registration"],
    ]);
    expect((await post("/fuel-log", LOG)).body).toMatchObject({ taken: 0, repeated: 3 });
    const { body } = await get("/aircraft/QX-TAR/fuel-log");
    expect(body.items.map((row: { entry: string; amount: number }) => [row.entry, row.amount])).toEqual([
      ["uplift", 20],
      expect.anything(),
      expect.anything(),
    ]);
  });

  test("goes out as it came in, and in again without a new line", async () => {
    const out = await app.request("/api/v1/aircraft/QX-TAR/fuel-log.csv");
    expect(out.headers.get("content-type")).toContain("text/csv");
    const text = await out.text();
    expect(readFluidCsv("fuel", text, () => tarrow4, NOW).rows).toHaveLength(3);
    expect((await post("/fuel-log", text)).body).toEqual({ taken: 0, repeated: 3, faults: [] });
    expect((await app.request("/api/v1/aircraft/QX-NON/fuel-log.csv")).status).toBe(404);
  });

  test("comes in pages, newest first, each line once", async () => {
    await importFluids(app.database.db, pastYear(NOW), HOME.groupId);
    const seen: { at: string; amount: number }[] = [];
    let before = "";
    for (let page = 0; page < 40; page++) {
      const { body } = await get(
        `/aircraft/QX-DOV/oil-log?limit=7${before && `&before=${encodeURIComponent(before)}`}`,
      );
      seen.push(...body.items);
      if (!body.next) break;
      before = body.next;
    }
    const all = pastYear(NOW).filter((row) => row.registration === "QX-DOV" && row.fluid === "oil");
    expect(seen).toHaveLength(all.length);
    expect(seen.map((row) => row.at)).toEqual([...seen.map((row) => row.at)].sort().reverse());
    expect((await get("/aircraft/QX-DOV/oil-log?limit=0")).status).toBe(422);
    expect((await get("/aircraft/QX-DOV/oil-log?before=yesterday")).status).toBe(422);
    expect((await get("/aircraft/QX-NON/oil-log")).status).toBe(404);
  });
});

describe("a preflight's own lines", () => {
  test("go into the log with the meter of that day, and out of it when they are undone", async () => {
    const { write } = eventWriter("ines");
    const reading = (itemId: string, key: string, value: number, unit: "h" | "cm" | "US qt") =>
      write("reading.taken", { itemId, key, value, unit });
    const dip = reading("left-tank.dip", "fuel.dip.left", 16, "cm");
    const added = write("oil.added", { registration: "QX-LUM", qt: 0.25, grade: "W100", sealed: true });
    await acceptEvents(
      app.database.db,
      [
        write("preflight.started", { ...STARTED, registration: "QX-LUM" }),
        reading("papers.hours", "hours", 613, "h"),
        dip,
        reading("oil.level", "oil.level", 2.5, "US qt"),
        added,
        reading("oil.level", "oil.level", 2.8, "US qt"),
      ],
      HOME,
    );
    const fuel = () => get("/aircraft/QX-LUM/fuel-log?limit=1").then(({ body }) => body.items[0]);
    expect(await fuel()).toMatchObject({ entry: "dip", part: "left", amount: 16, unit: "cm", hours: 613 });
    const oil = (await get("/aircraft/QX-LUM/oil-log?limit=3")).body.items;
    expect(oil.map((row: { entry: string; amount: number }) => [row.entry, row.amount])).toEqual([
      ["level", 2.8],
      ["added", 0.25],
      expect.arrayContaining(["level"]),
    ]);
    await acceptEvents(app.database.db, [write("item.undone", { eventId: dip.id })], HOME);
    expect(await fuel()).not.toMatchObject({ entry: "dip" });
  });

  test("an uplift that belongs to no walk is logged as well, and is no walk", async () => {
    const { write, streamId } = eventWriter("maren");
    const uplift = write("fuel.uplifted", {
      registration: "QX-COR",
      tankId: "left",
      amount: 12,
      unit: "US gal",
      grade: "100LL",
      from: "typed",
    });
    const { refused } = await acceptEvents(app.database.db, [uplift], HOME);
    expect(refused).toEqual([]);
    expect((await get("/aircraft/QX-COR/fuel-log?limit=1")).body.items[0]).toMatchObject({
      entry: "uplift",
      amount: 12,
      unit: "US gal",
    });
    const { body } = await get("/preflights?limit=100");
    expect(body.items.map((p: { id: string }) => p.id)).not.toContain(streamId);
    const stranger = write("fuel.uplifted", { registration: "QX-NON", amount: 12, unit: "L", from: "typed" });
    expect((await acceptEvents(app.database.db, [stranger], HOME)).refused).toHaveLength(1);
  });

  test("come with the aircraft to the device, and tell what its engine uses", async () => {
    for (const { aircraft, type } of group.filter((g) => g.type.oil)) {
      const { body } = await get(`/aircraft/${aircraft.registration}`);
      const log = fluidLogOf(type, body.fluids);
      expect(body.fluids.length).toBeLessThanOrEqual(500);
      if (aircraft.registration === "QX-DOV") {
        const [left, right] = ["left", "right"].map((engine) =>
          oilTrend(log.oil.filter((e) => e.engine === engine)),
        );
        expect(left?.change?.before.perH).toBeCloseTo(0.14, 1);
        expect(left?.recent?.perH).toBeCloseTo(0.34, 1);
        expect(right?.change).toBeUndefined();
      }
    }
  });
});

describe("the pump", () => {
  const order = { registration: "QX-TAR", tankId: "left", litres: 40, grade: "100LL" };

  test("gives what is asked, and prints a receipt", async () => {
    const { status, body } = await post("/pump/deliveries", { ...order, trouble: "none" });
    expect(status).toBe(201);
    expect(body).toMatchObject({
      amount: 40,
      unit: "L",
      tankId: "left",
      grade: "100LL",
      registration: "QX-TAR",
    });
    expect((await get("/pump")).body.totalL).toBeGreaterThan(18_000);
  });

  test("prints in gallons, in the wrong unit, or with two digits changed about, when it is asked to", async () => {
    const paper = async (trouble: string) =>
      (await post("/pump/deliveries", { ...order, litres: 52, trouble })).body as Receipt;
    const gallons = await paper("other unit");
    expect(litresOfFuel(gallons.amount, gallons.unit, 0.719)).toBeCloseTo(52, 0);
    expect(await paper("wrong unit")).toMatchObject({ amount: 52, unit: "US gal" });
    expect(await paper("digits swapped")).toMatchObject({ amount: 25, unit: "L" });
  });

  test.each([
    [{ ...order, registration: "QX-NON" }, 404],
    [{ ...order, tankId: "tip" }, 422],
    [{ ...order, litres: 120 }, 422],
    [{ ...order, litres: -1 }, 422],
    [{ ...order, grade: "rum" }, 422],
    ["{", 400],
  ])("turns down %j", async (body, status) => {
    expect((await post("/pump/deliveries", body)).status).toBe(status);
  });

  test("errs as often as it should, and foreseeably", () => {
    const pump = new Pump(3);
    const troubles = Array.from({ length: 200 }, (_, i) => pump.troubleOf(i + 1));
    expect(troubles).toEqual(Array.from({ length: 200 }, (_, i) => new Pump(3).troubleOf(i + 1)));
    const part = (trouble: string) => troubles.filter((t) => t === trouble).length / 200;
    expect(part("none")).toBeGreaterThan(0.35);
    expect(part("wrong unit")).toBeGreaterThan(0.05);
  });
});
