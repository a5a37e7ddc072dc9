import { readForecast, readReport } from "@cravix/core/weather/read-weather";
import { NOW, type TestApp, testApp } from "../../testing/test-app";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

test("a field's station says its report and forecast as text, by the server's clock", async () => {
  const answer = await app.request("/api/v1/weather/QXMP");
  expect([answer.status, answer.headers.get("cache-control")]).toEqual([200, "no-store"]);
  const { report, forecast, simulated } = (await answer.json()) as {
    simulated: boolean;
    report: { at: string; text: string };
    forecast: { text: string };
  };
  expect(simulated).toBe(true);
  expect(readReport(report.text, NOW.toISOString())).toMatchObject({
    station: "QXMP",
    at: report.at,
    unread: [],
  });
  expect(readForecast(forecast.text, NOW.toISOString()).station).toBe("QXMP");
});

test.each([
  ["QXZZ", 404],
  ["qxmp", 404],
  ["QXMPX", 404],
  ["%27%20OR%201", 404],
])("station %s: %d, in a sentence", async (station, status) => {
  const answer = await app.request(`/api/v1/weather/${station}`);
  expect(answer.status).toBe(status);
  expect(((await answer.json()) as { detail: string }).detail).toMatch(/\.$/);
});

test("an aircraft comes with all fields on file: where it can go", async () => {
  const { fields } = (await (await app.request("/api/v1/aircraft/QX-TAR")).json()) as {
    fields: { id: string }[];
  };
  expect(fields.map(({ id }) => id).sort()).toEqual([
    "heron-island",
    "kelder-moor",
    "marram-point",
    "saltmouth",
  ]);
});
