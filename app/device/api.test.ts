import { api } from "./api";

/** Time limit of heavy server work (`server/src/worker-pool/run-in-worker.ts`). */
const SERVER_MS = 20_000;

const timeouts = jest.spyOn(AbortSignal, "timeout");
const asked = jest.fn();

beforeEach(() => {
  timeouts.mockClear();
  asked.mockReset();
  globalThis.fetch = asked as unknown as typeof fetch;
});

const limitOf = async (ask: () => Promise<unknown>) => {
  asked.mockResolvedValueOnce(new Response("{}", { status: 200 }));
  await ask();
  const { signal } = asked.mock.calls[0]?.[1] as RequestInit;
  const place = timeouts.mock.results.findIndex(({ value }) => value === signal);
  return timeouts.mock.calls[place]?.[0];
};

test("requests for server-generated files wait longer than the server may take", async () => {
  expect(await limitOf(() => api.flightsPdf("QX-TAR"))).toBeGreaterThan(SERVER_MS);
  asked.mockReset();
  timeouts.mockClear();
  expect(await limitOf(() => api.sendFluidCsv("fuel", "time,registration"))).toBeGreaterThan(SERVER_MS);
});

test("other requests time out sooner, so that people on an apron are not kept waiting", async () => {
  expect(await limitOf(() => api.fleet())).toBeLessThan(SERVER_MS);
});
