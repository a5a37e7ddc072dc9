import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { runUnseenCase } from "@cravix/core/testing/run-unseen-case";
import { UNSEEN_CASE_PROBLEMS, type UnseenCase, unseenCase } from "@cravix/core/testing/unseen-cases";
import { ROOT } from "./paths";

/**
 * Plots unseen cases for inspection: rpm and the first EGT, with the steps found above and the true actions below. `npx tsx
 * tools/src/plot-unseen-cases.ts [file] [seed] [each]`.
 */
const [file = "docs/decisions/unseen-cases.svg", seed = "100007", each = "1"] = process.argv.slice(2);
const W = 620;
const H = 190;
const ROW = { read: 14, top: 22, bottom: 158, done: 172 };
const INK: Record<string, string> = {
  right: "#a33b20",
  left: "#1c5d99",
  first: "#a33b20",
  second: "#1c5d99",
  heat: "#b8860b",
  propeller: "#5b3a8c",
  idle: "#3c7a4b",
  stop: "#000",
  quit: "#000",
};
/** Margin around the run-up; the rest of the taxi is left out. */
const AROUND_S = 8;

function plot(one: UnseenCase, number: number): string {
  const { reading, chances } = runUnseenCase(one);
  const busy = one.done.filter(({ what }) => what !== "ground");
  const from = (busy[0]?.from ?? 0) - AROUND_S;
  const to = (busy.at(-1)?.to ?? 100) + AROUND_S;
  const x = (t: number) => ((t - from) / (to - from)) * W;
  const most = Math.max(...one.lines.map(({ rpm }) => rpm)) * 1.03;
  const y = (rpm: number) => ROW.bottom - (rpm / most) * (ROW.bottom - ROW.top);
  const shown = one.lines.filter(({ t }) => t >= from && t <= to);
  const line = (points: string, ink: string, width: number) =>
    `<polyline points="${points}" fill="none" stroke="${ink}" stroke-width="${width}"/>`;
  const bars = (all: { name: string; a: number; b: number }[], at: number) =>
    all
      .filter(({ a, b }) => b > from && a < to)
      .map(({ name, a, b }) => {
        const left = Math.max(0, x(a));
        const width = Math.min(W, x(b)) - left;
        const ink = INK[name] ?? "#b9b2a3";
        const words =
          width > name.length * 5.2
            ? `<text x="${(left + width / 2).toFixed(1)}" y="${at}" font-size="8.5" text-anchor="middle" fill="#222">${name}</text>`
            : "";
        return `<rect x="${left.toFixed(1)}" y="${at + 1.5}" width="${Math.max(1, width - 1).toFixed(1)}" height="3.5" fill="${ink}"/>${words}`;
      })
      .join("");
  const likely = [...chances]
    .sort((a, b) => b[1] - a[1])
    .slice(0, 2)
    .map(([name, chance]) => `${name} ${Math.round(100 * chance)} %`)
    .join(", ");
  const egt = (value: number) => ROW.bottom - ((value - 700) / 1000) * (ROW.bottom - ROW.top);
  return `<g transform="translate(${10 + (number % 2) * (W + 30)}, ${10 + Math.floor(number / 2) * (H + 20)})"><rect width="${W}" height="${H}" fill="#fff" stroke="#ccc"/>${line(
    shown.map((s) => `${x(s.t).toFixed(1)},${egt(s.egt[0] ?? 0).toFixed(1)}`).join(" "),
    "#e0a98f",
    1,
  )}${line(shown.map((s) => `${x(s.t).toFixed(1)},${y(s.rpm).toFixed(1)}`).join(" "), "#222", 1.2)}${bars(
    reading.steps.map(({ step, at, until }) => ({ name: step, a: at, b: until })),
    ROW.read,
  )}${bars(
    one.done.map(({ what, from: a, to: b }) => ({ name: what, a, b })),
    ROW.done,
  )}<text x="4" y="${H - 4}" font-size="9.5" fill="#222">${one.trouble}; ${reading.interval.toFixed(2)} s a line; read as: ${likely}</text></g>`;
}

const cases = UNSEEN_CASE_PROBLEMS.filter(
  (trouble) => trouble !== "heat cable off" && trouble !== "alternator off line",
).flatMap((trouble) => Array.from({ length: Number(each) }, (_, i) => unseenCase(trouble, Number(seed) + i)));
const height = 20 + Math.ceil(cases.length / 2) * (H + 20);
const target = join(ROOT, file);
mkdirSync(dirname(target), { recursive: true });
writeFileSync(
  target,
  `<svg xmlns="http://www.w3.org/2000/svg" width="${2 * W + 50}" height="${height}" font-family="sans-serif"><rect width="100%" height="100%" fill="#f7f3ea"/>${cases.map(plot).join("\n")}</svg>\n`,
);
