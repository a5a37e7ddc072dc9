import { listenLive } from "./engine-monitor";

/** A server stream controlled by the test. */
class Stream {
  static last: Stream;
  onmessage: (event: { data: string }) => void = () => undefined;
  onerror: () => void = () => undefined;
  readonly #on = new Map<string, (event: { data: string }) => void>();
  closed = false;
  constructor(readonly url: string) {
    Stream.last = this;
  }
  addEventListener(name: string, hear: (event: { data: string }) => void) {
    this.#on.set(name, hear);
  }
  begin(id: string) {
    this.#on.get("session")?.({ data: JSON.stringify({ id }) });
  }
  line(t: number) {
    this.onmessage({ data: JSON.stringify([{ t, rpm: 1000 }]) });
  }
  close() {
    this.closed = true;
  }
}

/** Requests in order; the test answers each. */
let sent: { path: string; body: { t?: number; step?: string }; answer: () => void }[] = [];
const turn = () => new Promise((resolve) => setTimeout(resolve, 0));
const said = () => sent.map(({ path, body }) => `${path.split("/").at(-1)} ${body.step ?? body.t}`);

beforeEach(() => {
  sent = [];
  Object.assign(globalThis, {
    EventSource: Stream,
    fetch: (path: string, { body }: { body: string }) =>
      new Promise((resolve) => sent.push({ path, body: JSON.parse(body), answer: () => resolve({}) })),
  });
});

const listen = (speed: string) => {
  const troubles: string[] = [];
  const monitor = listenLive(
    { registration: "QX-TAR", speed },
    {
      onLines: () => undefined,
      onTrouble: (words) => troubles.push(words),
    },
  );
  return { monitor, troubles, stream: Stream.last };
};

test("the simulated engine does not run ahead of its pilot's instructions", async () => {
  const { monitor, stream } = listen("40");
  expect(stream.url).toContain("waits=yes");
  stream.begin("one");
  stream.line(1);
  await turn();
  sent.at(-1)?.answer();
  monitor.tell("right");
  stream.line(2);
  stream.line(3.5);
  await turn();
  expect(said()).toEqual(["heard 1", "do right"]);
  sent.at(-1)?.answer();
  await turn();
  // Positions heard meanwhile are sent as one.
  expect(said()).toEqual(["heard 1", "do right", "heard 3.5"]);
});

test("lines are not confirmed before the instruction that follows them", async () => {
  const { monitor, stream } = listen("40");
  stream.begin("one");
  monitor.tell("idle");
  stream.line(1);
  monitor.tell("ground");
  stream.line(9);
  await turn();
  for (let i = 0; i < 4; i++) {
    sent.at(-1)?.answer();
    await turn();
  }
  expect(said()).toEqual(["do idle", "heard 1", "do ground", "heard 9"]);
});

test("in real time nothing waits, and only instructions are sent", async () => {
  const { monitor, stream, troubles } = listen("1");
  expect(stream.url).not.toContain("waits");
  stream.begin("one");
  for (let t = 0; t < 5; t++) stream.line(t);
  monitor.tell("left");
  await turn();
  expect(said()).toEqual(["do left"]);
  stream.onerror();
  expect(stream.closed).toBe(true);
  expect(troubles).toEqual([
    "The engine monitor stopped sending. The data received is saved. Enter the rest by hand, or start again.",
  ]);
});
