import { newId } from "@cravix/contract";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eventWriter, STARTED, smallPreflight } from "../../testing/make-events";
import { NOW, type TestApp, testApp } from "../../testing/test-app";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

const send = async (events: unknown[]) => {
  const response = await app.request("/api/v1/events", { events });
  return { status: response.status, body: await response.json() };
};
const CHECKED = { itemId: "tail.skid", outcome: "checked" } as const;
const detail = async (id: string) => (await app.request(`/api/v1/preflights/${id}`)).json();

describe("a batch of events", () => {
  test("is on record once, and reads back as sent", async () => {
    const { events, streamId } = smallPreflight();
    expect((await send(events)).body).toEqual({ taken: 4, repeated: 0, refused: [] });
    const { summary, events: stored } = await detail(streamId);
    expect(stored).toEqual(events);
    expect(summary).toMatchObject({
      registration: "QX-TAR",
      crewId: "ines",
      answered: 3,
      found: 1,
      verdict: null,
    });
  });

  test("sent again is harmless, even partly with new ones", async () => {
    const { events, write } = smallPreflight();
    await send(events);
    const before = await app.count("event");
    const again = await send([
      ...events.slice(2),
      write("item.answered", { itemId: "tail.rudder", outcome: "checked" }),
    ]);
    expect(again.body).toEqual({ taken: 1, repeated: 2, refused: [] });
    expect(await app.count("event")).toBe(before + 1);
  });

  test("from a device that was not updated yet is accepted in older words, and means the same", async () => {
    const { events, write, streamId } = smallPreflight();
    const later = write("item.postponed", { itemId: "tail.rudder" });
    const inOldWords = (event: PreflightEvent) => {
      const { streamId: preflightId, ...rest } = event;
      const data =
        event.type === "item.answered" && event.data.outcome === "checked"
          ? { ...event.data, outcome: "sound" }
          : event.data;
      return { ...rest, preflightId, type: event.type.replace("postponed", "deferred"), data };
    };
    const all = [...events, later];
    expect((await send(all.map(inOldWords))).body).toEqual({ taken: 5, repeated: 0, refused: [] });
    expect((await send(all)).body).toEqual({ taken: 0, repeated: 5, refused: [] });
    expect((await send([...all.map(inOldWords), ...all])).body).toEqual({
      taken: 0,
      repeated: 10,
      refused: [],
    });
    expect((await detail(streamId)).events).toEqual(all);
  });

  test("recorded in older words is read in today's, and the record is unchanged", async () => {
    const { events, streamId, write } = smallPreflight();
    await send(events);
    const answered = events.find((e) => e.type === "item.answered" && e.data.outcome === "checked");
    const old = JSON.stringify({ ...answered?.data, outcome: "sound" });
    await app.database.pool.query("UPDATE event SET data = ? WHERE id = ?", [old, answered?.id]);
    expect((await send([...events, write("item.answered", CHECKED)])).body).toMatchObject({
      taken: 1,
      refused: [],
    });
    const { summary, events: stored } = await detail(streamId);
    expect(stored.slice(0, events.length)).toEqual(events);
    expect(summary).toMatchObject({ answered: 4, found: 1 });
    const [rows] = await app.database.pool.query("SELECT data FROM event WHERE id = ?", [answered?.id]);
    expect(JSON.stringify(rows)).toContain("sound");
  });

  test("with a second person keeps who answered; an unknown person is rejected", async () => {
    const { events, write, streamId } = smallPreflight();
    await send(events);
    const joined = write("crew.joined", { crewId: "kofi" });
    const answered = write("item.answered", { ...CHECKED, byCrewId: "kofi" });
    const stranger = write("crew.joined", { crewId: "nobody" });
    const { body } = await send([joined, answered, stranger, write("station.flowed", { stationId: "tail" })]);
    expect(body).toMatchObject({
      taken: 3,
      refused: [{ id: stranger.id, reason: "nobody is not a member of the group." }],
    });
    const stored = (await detail(streamId)).events;
    expect(stored).toContainEqual(answered);
    expect(stored).not.toContainEqual(stranger);
  });

  test("in any order and split gives the same projection", async () => {
    const forward = smallPreflight();
    await send(forward.events);
    const backward = smallPreflight();
    for (const event of [...backward.events].reverse()) await send([event]);
    const strip = ({ id, startedAt, lastAt, ...rest }: Record<string, unknown>) => rest;
    expect(strip((await detail(backward.streamId)).summary)).toEqual(
      strip((await detail(forward.streamId)).summary),
    );
  });

  test("from two devices at once for one preflight loses nothing", async () => {
    const { events, write, streamId } = smallPreflight();
    const more = Array.from({ length: 40 }, (_, i) =>
      write("item.answered", { itemId: `item.${i}`, outcome: "checked" }),
    );
    const results = await Promise.all([...events, ...more].map((event) => send([event])));
    expect(results.every((r) => r.status === 200)).toBe(true);
    const { summary, events: stored } = await detail(streamId);
    expect(stored).toHaveLength(44);
    expect(summary.answered).toBe(43);
  });

  test("stores a reading under the person who read it, not who started the preflight", async () => {
    const { events, write } = smallPreflight();
    const read = write("reading.taken", { itemId: "hours", key: "hours", value: 4230, unit: "h" });
    await send([...events, { ...read, crewId: "maren" }]);
    const { lastReadings } = await (await app.request("/api/v1/aircraft/QX-TAR")).json();
    expect(lastReadings.find((r: { key: string }) => r.key === "hours")).toMatchObject({ crewId: "maren" });
  });

  test("about an aircraft outside a preflight is a stream of its own, and not a preflight", async () => {
    const { write, streamId } = eventWriter("maren");
    const added = write("oil.added", { registration: "QX-LUM", qt: 0.5, sealed: true });
    expect((await send([{ ...added, stream: "aircraft" }])).body).toEqual({
      taken: 1,
      repeated: 0,
      refused: [],
    });
    expect((await app.request(`/api/v1/preflights/${streamId}`)).status).toBe(404);
    // It does not become a preflight, and its items cannot be answered.
    const answer = write("item.answered", CHECKED);
    expect((await send([answer])).body.refused[0].field).toBe("streamId");
    expect(
      (await send([{ ...answer, id: newId(NOW.getTime()), stream: "aircraft" }])).body.refused[0].field,
    ).toBe("stream");
  });

  test("that starts a preflight a second time does not take it over, whatever its id", async () => {
    const { events, write, streamId } = smallPreflight("ines");
    await send(events);
    const thief = { ...write("preflight.started", STARTED), id: newId(0), crewId: "maren" };
    expect((await send([thief])).body.refused[0].reason).toContain("already been started");
    await send([
      { ...write("verdict.signed", { verdict: "go", decision: "fly", reasons: [] }), crewId: "maren" },
      write("verdict.signed", { verdict: "stop", decision: "not flying", reasons: [] }),
    ]);
    expect((await detail(streamId)).summary).toMatchObject({ crewId: "ines", decision: "not flying" });
  });

  test("an undone reading leaves no row behind", async () => {
    const { events, write, streamId } = smallPreflight();
    await send(events);
    const reading = events[2] as PreflightEvent;
    await send([write("item.undone", { eventId: reading.id })]);
    const [rows] = await app.database.pool.query("SELECT * FROM reading WHERE preflight_id = ?", [streamId]);
    expect(rows).toEqual([]);
  });
});

describe("an invalid event", () => {
  const writer = eventWriter();
  const good = () => writer.write("item.answered", { itemId: "tail.rudder", outcome: "checked" });
  const reasonFor = async (event: unknown) => {
    const companion = good();
    const { body } = await send([companion, event]);
    // The rest of the batch is accepted.
    expect(body.taken).toBe(1);
    expect(body.refused).toHaveLength(1);
    return body.refused[0];
  };

  test("from the future is named by its id with the reason", async () => {
    const event = { ...good(), at: "2026-05-01T13:00:00.000Z" };
    expect(await reasonFor(event)).toMatchObject({
      id: event.id,
      index: 1,
      field: "at",
      reason: expect.stringContaining("clock"),
    });
  });

  test("a few minutes ahead is within the clock tolerance", async () => {
    const { body } = await send([{ ...good(), at: new Date(NOW.getTime() + 9 * 60_000).toISOString() }]);
    expect(body).toEqual({ taken: 1, repeated: 0, refused: [] });
  });

  test.each([
    ["40 quarts of oil", { value: 40, unit: "US qt" }, /40\.0 US qt is above/],
    ["9,000 rpm", { value: 9000, unit: "rpm" }, /9,000 rpm is above/],
    ["a negative dip", { value: -2, unit: "cm" }, /below/],
    ["words for a number", { value: "seven", unit: "US qt" }, /number/],
  ])("%s is rejected", async (_name, data, reason) => {
    const event = {
      ...writer.write("reading.taken", { itemId: "x", key: "x", value: 1, unit: "L" }),
      data: { itemId: "x", key: "x", ...data },
    };
    expect((await reasonFor(event)).reason).toMatch(reason);
  });

  test("about an aircraft or person outside the group is rejected", async () => {
    const unknown = writer.write("preflight.started", { ...STARTED, registration: "QX-NON" });
    expect((await reasonFor(unknown)).reason).toContain("QX-NON is not one of your group's aircraft");
    expect((await reasonFor({ ...good(), crewId: "stranger" })).field).toBe("crewId");
  });

  test("of an unknown kind, with an extra field, with a wrong id, or a bare string", async () => {
    expect((await reasonFor({ ...good(), type: "item.dreamt" })).field).toBe("type");
    expect((await reasonFor({ ...good(), extra: 1 })).reason).toContain("extra");
    expect((await reasonFor({ ...good(), id: "7" })).field).toBe("id");
    expect((await reasonFor("answered")).id).toBeNull();
  });

  test("that reuses an id with other content is rejected and the record stands", async () => {
    const first = good();
    await send([first]);
    const forged = { ...first, data: { itemId: "tail.rudder", outcome: "found" } };
    expect(await reasonFor(forged)).toMatchObject({ id: first.id, field: "id" });
    const { events, summary } = await detail(writer.streamId);
    expect(events.find((e: PreflightEvent) => e.id === first.id)).toEqual(first);
    // The forged one does not count in another preflight either.
    const other = eventWriter();
    await send([{ ...forged, streamId: other.streamId }, other.write("item.answered", CHECKED)]);
    expect((await detail(other.streamId)).summary).toMatchObject({ answered: 1 });
    expect((await detail(writer.streamId)).summary).toEqual(summary);
  });

  test("is not one by a person who joined a moment ago", async () => {
    const newcomer = eventWriter("noor");
    const event = newcomer.write("item.answered", CHECKED);
    expect((await send([event])).body.refused[0].reason).toContain("noor is not a member of the group");
    await app.database.pool.query(
      "INSERT INTO crew (group_id, id, name, role) VALUES ('home', 'noor', 'Noor Aziz', 'pilot')",
    );
    expect((await send([event])).body).toEqual({ taken: 1, repeated: 0, refused: [] });
  });
});

describe("discrepancies", () => {
  const open = async () => (await (await app.request("/api/v1/aircraft/QX-TAR/discrepancies")).json()).items;

  test("are open until a mechanic signs them off, and are measured again by the next pilot", async () => {
    const first = smallPreflight();
    await send(first.events);
    const next = eventWriter("maren", NOW.getTime() - 1_000_000);
    const { discrepancyId } = first;
    await send([
      next.write("discrepancy.observed", {
        discrepancyId,
        itemId: `known:${discrepancyId}`,
        state: "grown",
        measure: "11 mm",
      }),
    ]);
    const mine = (await open()).find((d: { id: string }) => d.id === discrepancyId);
    expect(mine).toMatchObject({
      text: "Left tyre: cut in the shoulder",
      measure: "11 mm",
      openedByName: "Inês Valadares",
    });
    expect(mine.observations).toHaveLength(1);

    const pilotTries = await send([next.write("discrepancy.closed", { discrepancyId, how: "looks fine" })]);
    expect(pilotTries.body.refused[0].reason).toContain("Only a mechanic");
    const mechanic = eventWriter("kofi", NOW.getTime() - 900_000);
    await send([mechanic.write("discrepancy.closed", { discrepancyId, how: "Tyre changed." })]);
    expect((await open()).some((d: { id: string }) => d.id === discrepancyId)).toBe(false);
  });

  const all = async () => (await (await app.request("/api/v1/discrepancies?state=all")).json()).items;

  test("logged by mistake are withdrawn, and stay on record as such; undo does not affect them", async () => {
    const { events, write, discrepancyId } = smallPreflight();
    await send(events);
    await send([write("item.undone", { eventId: (events[3] as PreflightEvent).id })]);
    expect((await open()).some((d: { id: string }) => d.id === discrepancyId)).toBe(true);
    const somebody = eventWriter("maren", NOW.getTime() - 900_000);
    await send([somebody.write("discrepancy.withdrawn", { discrepancyId })]);
    expect((await open()).some((d: { id: string }) => d.id === discrepancyId)).toBe(true);
    await send([write("discrepancy.withdrawn", { discrepancyId })]);
    expect((await open()).some((d: { id: string }) => d.id === discrepancyId)).toBe(false);
    expect((await all()).find((d: { id: string }) => d.id === discrepancyId)).toMatchObject({
      withdrawn: { crewId: "ines" },
    });
  });

  test("whose observation arrives before the opening end up the same", async () => {
    const { events, discrepancyId, write } = smallPreflight();
    const observed = write("discrepancy.observed", {
      discrepancyId,
      itemId: "k",
      state: "same",
      measure: "9 mm",
    });
    await send([observed]);
    await send(events);
    expect((await open()).find((d: { id: string }) => d.id === discrepancyId)).toMatchObject({
      measure: "9 mm",
    });
  });
});

describe("an unreadable request", () => {
  const problemOf = async (body: unknown) => {
    const response = await app.request("/api/v1/events", body, "POST");
    expect(response.headers.get("content-type")).toContain("application/problem+json");
    return response.json();
  };

  test("is a problem document with a status and a sentence", async () => {
    expect(await problemOf("{not json")).toMatchObject({ status: 400, title: "Bad request" });
    expect(await problemOf({})).toMatchObject({
      status: 422,
      faults: [{ path: "events", expected: expect.any(String) }],
    });
    const tooMany = Array.from({ length: 501 }, () => ({ id: newId(0) }));
    expect(await problemOf({ events: tooMany })).toMatchObject({
      status: 413,
      detail: expect.stringContaining("501"),
    });
  });
});
