import { randomUUID } from "node:crypto";
import { Monitor, type MonitorOptions } from "@cravix/core/engine-model";

/** The most stand-ins that run at once, and how long one runs without anybody telling its pilot anything, ms. */
export const MOST_MONITORS = 24;
const IDLE_MS = 20 * 60_000;

export interface Session {
  id: string;
  monitor: Monitor;
  touched: number;
}

/** The simulated engine monitors that are switched on. Each is one engine with its pilot; nothing of them is kept. */
export class Monitors {
  private readonly sessions = new Map<string, Session>();

  /** Switches one on; undefined when too many run already. */
  open(options: MonitorOptions, now: number): Session | undefined {
    for (const { id, touched } of this.sessions.values())
      if (now - touched > IDLE_MS) this.sessions.delete(id);
    if (this.sessions.size >= MOST_MONITORS) return undefined;
    const session = { id: randomUUID(), monitor: new Monitor(options), touched: now };
    this.sessions.set(session.id, session);
    return session;
  }

  find(id: string, now: number): Session | undefined {
    const session = this.sessions.get(id);
    if (session) session.touched = now;
    return session;
  }

  close(id: string): void {
    this.sessions.delete(id);
  }
}
