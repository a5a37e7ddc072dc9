import { createHash } from "node:crypto";
import type { EventData } from "@cravix/core/checklist/stream/events";
import sharp from "sharp";
import { eventMaker } from "../../testing/event-maker";
import { HOME, NOW, type TestApp, testApp } from "../../testing/test-app";
import { acceptEvents } from "../events/accept-events";
import { checkProjections } from "../events/check-projections";
import { readBundle, readDiscrepancies } from "../fleet/read-fleet";
import { cleanPicture } from "./clean-picture";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const made = eventMaker(NOW.getTime() - 3_600_000);
const accept = (...events: unknown[]) => acceptEvents(app.database.db, events, HOME);
const hashOf = (bytes: Uint8Array) => `sha256:${createHash("sha256").update(bytes).digest("hex")}`;
const put = async (bytes: Uint8Array, hash = hashOf(bytes), type = "image/jpeg") => {
  const { createApp } = await import("../app");
  const pino = (await import("pino")).default;
  const one = createApp({ database: app.database, logger: pino({ level: "silent" }), clock: () => NOW });
  return one.request(`/api/v1/photographs/${hash}`, {
    method: "PUT",
    headers: { "cravix-crew": "kofi", "content-type": type },
    body: bytes as Uint8Array<ArrayBuffer>,
  });
};

/** A single-colour photo as from a camera: rotated, with location and camera data. */
const camera = (red: number, { width = 400, height = 300 } = {}) =>
  sharp({ create: { width, height, channels: 3, background: { r: red, g: 90, b: 40 } } })
    .withExif({
      IFD0: { Make: "Some Maker", Model: "Some Model" },
      IFD3: { GPSLatitudeRef: "N", GPSLatitude: "51/1 30/1 0/1" },
    })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer();

async function opened(text: string): Promise<string> {
  const event = made("discrepancy.opened", {
    discrepancyId: "",
    registration: "QX-TAR",
    stationId: "tail",
    text,
    grade: "watch",
  });
  Object.assign(event.data, { discrepancyId: event.id });
  await accept(event);
  return event.id;
}
const photographed = (discrepancyId: string, bytes: Uint8Array, more: object = {}) =>
  made("discrepancy.photographed", {
    discrepancyId,
    photograph: hashOf(bytes),
    width: 400,
    height: 300,
    ...more,
  } as EventData["discrepancy.photographed"]);

test("a picture is made again: upright, small, and nothing but the picture", async () => {
  const bytes = await camera(200, { width: 4000, height: 3000 });
  const before = await sharp(bytes).metadata();
  expect(before.exif).toBeDefined();
  expect(String(before.exif)).toContain("Some Maker");
  const clean = await cleanPicture(bytes);
  expect([clean?.width, clean?.height]).toEqual([1200, 1600]);
  const after = await sharp(clean?.data).metadata();
  expect(after).toMatchObject({ format: "webp", width: 1200, height: 1600 });
  expect([after.exif, after.icc, after.xmp, after.iptc]).toEqual([
    undefined,
    undefined,
    undefined,
    undefined,
  ]);
  expect(clean?.data.includes(Buffer.from("Some Maker"))).toBe(false);
});

test("it comes after what it is of, is kept once, and is fetched by the next pilot", async () => {
  const bytes = await camera(120);
  expect((await put(bytes)).status).toBe(409);
  const id = await opened("Crack at the hinge");
  expect((await accept(photographed(id, bytes), photographed(id, bytes))).refused).toEqual([]);
  expect((await put(bytes, hashOf(Buffer.from("other")))).status).toBe(422);
  expect((await put(bytes)).status).toBe(204);
  expect((await put(bytes)).status).toBe(204);
  expect(await app.count("photograph")).toBe(1);
  const got = await app.request(`/api/v1/photographs/${hashOf(bytes)}`);
  expect(got.headers.get("content-type")).toBe("image/webp");
  expect(got.headers.get("cache-control")).toContain("immutable");
  expect((await sharp(Buffer.from(await got.arrayBuffer())).metadata()).exif).toBeUndefined();
  expect((await app.request(`/api/v1/photographs/${hashOf(Buffer.from("none"))}`)).status).toBe(404);
  expect((await app.request("/api/v1/photographs/..%2f..%2fetc")).status).toBe(404);
  // The same one twice is stored once.
  const bundle = await readBundle(app.database.db, "QX-TAR", HOME.groupId);
  expect(bundle?.openDiscrepancies.find((d) => d.id === id)?.photographs).toEqual([
    { photograph: hashOf(bytes), width: 400, height: 300 },
  ]);
});

test("what is no photograph is rejected, whatever it calls itself, and brings nothing down", async () => {
  const id = await opened("For what is no picture");
  const torn = (await camera(10)).subarray(0, 900);
  const svg = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><script>1</script></svg>',
  );
  // A few kilobytes that decode to a hundred megapixels.
  const bomb = await sharp({
    create: { width: 10_000, height: 10_000, channels: 3, background: "white" },
    limitInputPixels: false,
  })
    .png({ compressionLevel: 9 })
    .toBuffer();
  const gif = await sharp({ create: { width: 9, height: 9, channels: 3, background: "white" } })
    .gif()
    .toBuffer();
  for (const bytes of [
    torn,
    svg,
    bomb,
    gif,
    Buffer.from("GIF89a"),
    Buffer.from("<html>"),
    Buffer.alloc(0),
    Buffer.alloc(4000),
  ]) {
    await accept(photographed(await opened("no picture"), bytes));
    expect((await put(bytes)).status).toBe(422);
  }
  const large = Buffer.alloc(2 * 1024 * 1024 + 1);
  expect((await put(large)).status).toBe(413);
  expect((await put(await camera(1), undefined, "text/plain")).status).toBe(415);
  expect((await app.request("/api/v1/aircraft")).status).toBe(200);
  expect(id).toBeDefined();
});

test("five are the most: a sixth is rejected with the reason, and what two devices sent at once stays on record", async () => {
  const id = await opened("Photographed a lot");
  const six = await Promise.all([1, 2, 3, 4, 5, 6].map((red) => camera(red * 20)));
  const events = six.map((bytes) => photographed(id, bytes));
  expect((await accept(...events.slice(0, 5))).refused).toEqual([]);
  const { refused } = await accept(events[5]);
  expect(refused[0]?.reason).toContain("at most 5 photos");
  const [row] = (await readDiscrepancies(app.database.db, "QX-TAR", true, HOME.groupId)).filter(
    (d) => d.id === id,
  );
  expect(row?.photographs).toHaveLength(5);
  for (const more of [{ width: 0 }, { height: 1e9 }, { photograph: "sha256:x" }, { photograph: "__proto__" }])
    expect((await accept(photographed(id, six[0] as Buffer, more))).refused).toHaveLength(1);
});

test("a limit is set by who may, and measured against by everybody", async () => {
  const id = await opened("Creep mark");
  const limit = (crewId: string) =>
    made(
      "discrepancy.limited",
      { discrepancyId: id, most: 6, unit: "mm", source: "the wheel's card" },
      { crewId },
    );
  expect((await accept(limit("ines"))).refused[0]?.reason).toContain(
    "Only an instructor or a mechanic can set a limit",
  );
  expect((await accept(limit("kofi"))).refused).toEqual([]);
  const bundle = await readBundle(app.database.db, "QX-TAR", HOME.groupId);
  expect(bundle?.openDiscrepancies.find((d) => d.id === id)?.limit).toEqual({
    most: 6,
    unit: "mm",
    source: "the wheel's card",
  });
});

test("a fresh fold finds nothing else than what is written", async () => {
  expect((await checkProjections(app.database.db)).differences).toEqual([]);
});
