import { request as ask, createServer, type Server } from "node:http";

/** Proxy between browser and server, for simulating network conditions. */
export class NetworkProxy {
  /** Requests to these addresses fail. */
  broken: RegExp | undefined;
  /** Replacement responses by address. */
  instead: { path: RegExp; body: (own: string) => string } | undefined;
  private constructor(
    private readonly server: Server,
    readonly port: number,
  ) {}

  static async before(target: number): Promise<NetworkProxy> {
    const holder: { proxy?: NetworkProxy } = {};
    const server = createServer((incoming, outgoing) => {
      const path = incoming.url ?? "/";
      const { broken, instead } = holder.proxy as NetworkProxy;
      if (broken?.test(path)) return void outgoing.destroy();
      const changed = instead?.path.test(path) ? instead : undefined;
      const headers = { ...incoming.headers, ...(changed && { "accept-encoding": "identity" }) };
      const passed = ask(
        { host: "127.0.0.1", port: target, path, method: incoming.method, headers },
        (answer) => {
          if (!changed) {
            outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
            return void answer.pipe(outgoing);
          }
          const parts: Buffer[] = [];
          answer.on("data", (part: Buffer) => parts.push(part));
          answer.on("end", () => {
            const body = changed.body(Buffer.concat(parts).toString());
            const { "content-length": _length, "transfer-encoding": _encoding, ...rest } = answer.headers;
            outgoing.writeHead(answer.statusCode ?? 502, rest);
            outgoing.end(body);
          });
        },
      );
      passed.on("error", () => outgoing.destroy());
      incoming.pipe(passed);
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    const proxy = new NetworkProxy(server, (server.address() as { port: number }).port);
    holder.proxy = proxy;
    return proxy;
  }

  get url(): string {
    return `http://localhost:${this.port}`;
  }

  close(): Promise<void> {
    this.server.closeAllConnections();
    return new Promise((resolve) => this.server.close(() => resolve()));
  }
}
