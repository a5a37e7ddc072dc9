import { randomUUID } from "node:crypto";
import { Monitor, type MonitorOptions } from "@cravix/core/engine-model";

/** The most stand-ins that run at once, the most for one client, and how long one runs without anybody telling its pilot anything, ms. */
export const MOST_MONITORS = 24;
export const MOST_FOR_ONE = 8;
export const IDLE_MS = 20 * 60_000;
/** How far one that runs faster than the clock is ahead of who listens, seconds of the engine: a page that is slow for a moment is no slow pilot. */
export const AHEAD_S = 2.5;

export interface Session {
  id: string;
  monitor: Monitor;
  client: string;
  touched: number;
  /** Up to where it was heard, seconds of the engine; absent where nobody says, and then it waits for nobody. */
  heard?: number;
}

/** The simulated engine monitors that are switched on. Each is one engine with its pilot; nothing of them is kept. */
export class Monitors {
  private readonly sessions = new Map<string, Session>();

  /** Switches one on; undefined when too many run already, in all or for this client. */
  open(options: MonitorOptions, now: number, client = "here"): Session | undefined {
    for (const { id } of this.sessions.values()) this.runs(id, now);
    const own = [...this.sessions.values()].filter((session) => session.client === client);
    if (this.sessions.size >= MOST_MONITORS || own.length >= MOST_FOR_ONE) return undefined;
    const session = { id: randomUUID(), monitor: new Monitor(options), client, touched: now };
    this.sessions.set(session.id, session);
    return session;
  }

  /** The one that somebody tells something: from now on it is idle anew. */
  find(id: string, now: number): Session | undefined {
    const session = this.sessions.get(id);
    if (session) session.touched = now;
    return session;
  }

  /** Up to where it was heard; listening is no telling. False where it does not run. */
  heard(id: string, t: number): boolean {
    const session = this.sessions.get(id);
    if (session) session.heard = Math.max(session.heard ?? 0, t);
    return session !== undefined;
  }

  /** Whether it still runs; one that was idle for too long is switched off. */
  runs(id: string, now: number): boolean {
    const session = this.sessions.get(id);
    if (session && now - session.touched > IDLE_MS) this.sessions.delete(id);
    return this.sessions.has(id);
  }

  close(id: string): void {
    this.sessions.delete(id);
  }
}
