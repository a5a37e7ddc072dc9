import type { PersonRecord } from "@cravix/core/airworthiness/people/person-due";
import { deviceDatabase } from "../../device/log/database";
import { trainerBundle } from "../../testing/trainer-bundle";
import { createStore } from "../store";
import { localPilot } from "./local-pilot";
import { savedDueItems } from "./own-due";

const record: PersonRecord = {
  items: [
    {
      id: "own",
      kind: "own limits",
      name: "Personal minimums",
      limits: [{ by: "months", months: 12, to: "month end" }],
      minima: { runwayFactor: 1.4 },
      miss: "note",
      source: { kind: "own limit", text: "her own", example: true },
    },
  ],
  works: [{ item: "own", date: new Date().toISOString().slice(0, 10) }],
  flown: [],
};

const FLIGHT = { conditions: [], minutes: 60 };

let asked: string[] = [];
function serverSays(answer: () => Response | Promise<Response>) {
  asked = [];
  globalThis.fetch = (async (input: RequestInfo | URL) => {
    asked.push(String(input instanceof Request ? input.url : input));
    return answer();
  }) as typeof fetch;
}
const told = () => new Response(JSON.stringify(record), { headers: { "content-type": "application/json" } });
const here = () => localPilot(createStore().dispatch, "ines", trainerBundle, [], FLIGHT);

beforeEach(async () => {
  await (await deviceDatabase()).clear("notes");
});
afterEach(() => jest.restoreAllMocks());

test("personal minimums that arrive after the start are still applied and stored", async () => {
  serverSays(told);
  expect(await here()).toMatchObject({ minima: [{ minima: { runwayFactor: 1.4 } }], ownUnknown: false });
  expect(asked).toHaveLength(1);
  expect((await savedDueItems("ines"))?.record.items).toHaveLength(1);
  // Stored limits work offline.
  serverSays(() => {
    throw new TypeError("Failed to fetch");
  });
  expect(await here()).toMatchObject({ minima: [{ minima: { runwayFactor: 1.4 } }], ownUnknown: false });
  expect(asked).toEqual([]);
});

test("offline, or with a server that does not answer, nobody waits at the aircraft", async () => {
  serverSays(() => {
    throw new TypeError("Failed to fetch");
  });
  expect(await here()).toEqual({ minima: [], ownUnknown: true });
  const { setTimeout: later } = globalThis;
  const waited: number[] = [];
  jest.spyOn(globalThis, "setTimeout").mockImplementation(((work: () => void, ms = 0) => {
    waited.push(ms);
    return later(work, 0);
  }) as typeof setTimeout);
  serverSays(() => new Promise<Response>(() => undefined));
  expect(await here()).toEqual({ minima: [], ownUnknown: true });
  expect(asked).toHaveLength(1);
  expect(Math.max(...waited)).toBeLessThanOrEqual(5000);
});

test("a person without minimums has none", async () => {
  serverSays(told);
  expect(await localPilot(createStore().dispatch, null, trainerBundle, [], FLIGHT)).toEqual({
    minima: [],
    ownUnknown: false,
  });
  expect(asked).toEqual([]);
});

test("whether the pilot is in date is a grade alone, for this kind of flight", async () => {
  const day = (ahead: number) => new Date(Date.now() + ahead * 86_400_000).toISOString().slice(0, 10);
  const medical = (date: string) => ({
    id: "medical",
    kind: "medical",
    name: "Medical",
    limits: [{ by: "date", date }],
    miss: "stop",
    source: { kind: "rule", text: "certificate", example: true },
  });
  const recency = {
    ...medical(""),
    id: "passengers",
    kind: "recency",
    limits: [{ by: "recency", times: 3, days: 90 }],
    for: ["passengers"],
  };
  const of = async (items: object[], conditions: ("passengers" | "night")[] = []) => {
    await (await deviceDatabase()).clear("notes");
    serverSays(
      () =>
        new Response(JSON.stringify({ items, works: [], flown: [] }), {
          headers: { "content-type": "application/json" },
        }),
    );
    return (await localPilot(createStore().dispatch, "ines", trainerBundle, [], { ...FLIGHT, conditions }))
      .pilotInDate;
  };
  expect(await of([])).toBe("unjudged");
  expect(await of(record.items)).toBe("unjudged");
  expect(await of([medical(day(30))])).toBe("within limits");
  expect(await of([medical(day(-2))])).toBe("stop");
  expect(await of([medical(day(30)), recency])).toBe("within limits");
  expect(await of([medical(day(30)), recency], ["passengers"])).toBe("stop");
});
