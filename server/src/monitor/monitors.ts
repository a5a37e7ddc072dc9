import { randomUUID } from "node:crypto";
import { Monitor, type MonitorOptions } from "@cravix/core/engine-model";

/** Limits of simulated monitors: total, per client, and idle time, ms. */
export const MAX_MONITORS = 24;
export const MAX_FOR_ONE = 8;
export const IDLE_MS = 20 * 60_000;
/** Maximum lead over the listener when faster than real time, seconds of engine time. */
export const AHEAD_S = 2.5;

export interface Session {
  id: string;
  monitor: Monitor;
  client: string;
  touched: number;
  /** Position acknowledged, seconds of engine time; absent: no waiting. */
  heard?: number;
}

/** Active simulated engine monitors, each with one engine and pilot; nothing is stored. */
export class Monitors {
  private readonly sessions = new Map<string, Session>();

  /** Starts a monitor; undefined if the total or the client's limit is reached. */
  open(options: MonitorOptions, now: number, client = "here"): Session | undefined {
    for (const { id } of this.sessions.values()) this.runs(id, now);
    const own = [...this.sessions.values()].filter((session) => session.client === client);
    if (this.sessions.size >= MAX_MONITORS || own.length >= MAX_FOR_ONE) return undefined;
    const session = { id: randomUUID(), monitor: new Monitor(options), client, touched: now };
    this.sessions.set(session.id, session);
    return session;
  }

  /** Finds a monitor and resets its idle time. */
  find(id: string, now: number): Session | undefined {
    const session = this.sessions.get(id);
    if (session) session.touched = now;
    return session;
  }

  /** Acknowledges a position, which does not reset the idle time. False if it is not running. */
  heard(id: string, t: number): boolean {
    const session = this.sessions.get(id);
    if (session) session.heard = Math.max(session.heard ?? 0, t);
    return session !== undefined;
  }

  /** True if it is running; stops one that was idle too long. */
  runs(id: string, now: number): boolean {
    const session = this.sessions.get(id);
    if (session && now - session.touched > IDLE_MS) this.sessions.delete(id);
    return this.sessions.has(id);
  }

  close(id: string): void {
    this.sessions.delete(id);
  }
}
