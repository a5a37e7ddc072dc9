import type { Browser, Page } from "@playwright/test";
import { so } from "../size";

/** A browser's trace is taken in pieces of so much: a long one does not fit into memory. */
const PIECE_MS = so(20_000, 2000);
const MARK = "cravix page ";

/** An event of a browser's trace; times are millionths of a second. */
interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  ts: number;
  /** Time that the thread really had a processor. */
  tdur?: number;
}

/** What a frame took of a processor: from when to when by the clock, and how much of that was its page's own work; milliseconds. */
export interface WorkOfFrame {
  from: number;
  to: number;
  ms: number;
}

export interface OwnWork {
  /** The frames of each page. */
  frames: WorkOfFrame[][];
  /** Whether from a moment to another the browser only worked and kept its trace: beginning and ending one holds it up. */
  undisturbed: (from: number, to: number) => boolean;
}

/** After a trace has begun, so long is left to the browser. */
const BEGINS_MS = 700;

/**
 * What every frame of some pages took of a processor for so long: all tasks of the page's own thread from one frame to the next, by the thread's own
 * clock. By the clock on the wall a frame of a shared machine also stands still through no work of its own; this is the work alone, but for what of it
 * the machine beneath took away unseen.
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

/** The frames of the page that set the mark, at that moment of the clock. */
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
