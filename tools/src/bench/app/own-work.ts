import type { Browser, Page } from "@playwright/test";
import { so } from "../size";

/** Length of a trace segment: longer ones exceed memory. */
const PIECE_MS = so(20_000, 2000);
const MARK = "cravix page ";

/** A trace event; times in microseconds. */
interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  ts: number;
  /** CPU time of the thread. */
  tdur?: number;
}

/** CPU time of a frame: start and end by the clock, and the page's own work; milliseconds. */
export interface WorkOfFrame {
  from: number;
  to: number;
  ms: number;
}

export interface OwnWork {
  /** Frames of each page. */
  frames: WorkOfFrame[][];
  /** True if no trace segment started or ended in this period. */
  undisturbed: (from: number, to: number) => boolean;
}

/** Settling time after starting a trace. */
const BEGINS_MS = 700;

/**
 * CPU time of every frame of some pages: all tasks of the page's main thread between frames, by the thread clock. Unlike wall
 * time it excludes interruptions by other processes, except time the host machine takes away unseen.
 */
export async function ownWork(browser: Browser, pages: readonly Page[], ms: number): Promise<OwnWork> {
  const work: WorkOfFrame[][] = pages.map(() => []);
  const pieces: { from: number; to: number }[] = [];
  const end = Date.now() + ms;
  while (Date.now() < end) {
    await browser.startTracing(undefined, {
      categories: ["toplevel", "devtools.timeline", "blink.user_timing"],
    });
    await pages[0]?.waitForTimeout(BEGINS_MS);
    const marked: number[] = [];
    for (const [i, page] of pages.entries())
      marked.push(
        await page.evaluate<number>(
          `performance.timeOrigin + performance.mark(${JSON.stringify(MARK + i)}).startTime`,
        ),
      );
    const from = Date.now();
    await pages[0]?.waitForTimeout(Math.max(0, Math.min(PIECE_MS, end - from)));
    pieces.push({ from, to: Date.now() });
    const { traceEvents } = JSON.parse(String(await browser.stopTracing())) as { traceEvents: TraceEvent[] };
    for (const [i, all] of work.entries())
      all.push(...framesOf(traceEvents, MARK + i, marked[i] ?? Number.NaN));
  }
  return {
    frames: work,
    undisturbed: (from, to) => pieces.some((piece) => from >= piece.from && to <= piece.to),
  };
}

/** Frames of the page that set the mark. */
function framesOf(events: readonly TraceEvent[], mark: string, markedAt: number): WorkOfFrame[] {
  const marked = events.find(({ name }) => name === mark);
  if (!marked) throw new Error("The browser's trace not visible the page.");
  const clock = (ts: number) => markedAt + (ts - marked.ts) / 1000;
  const own = events
    .filter(({ pid, tid }) => pid === marked.pid && tid === marked.tid)
    .sort((a, b) => a.ts - b.ts);
  const frames: WorkOfFrame[] = [];
  let now: WorkOfFrame | undefined;
  for (const { name, ph, ts, tdur } of own) {
    if (name === "AnimationFrame" && ph === "b") {
      if (now) frames.push({ ...now, to: clock(ts) });
      now = { from: clock(ts), to: Number.NaN, ms: 0 };
    } else if (name === "ThreadControllerImpl::RunTask" && now) now.ms += (tdur ?? 0) / 1000;
  }
  if (!frames.some(({ ms }) => ms > 0)) throw new Error("The browser's trace has no CPU time per thread.");
  return frames;
}
