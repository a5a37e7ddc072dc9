import type { Random } from "./make-walks";

const nested = (levels: number, open: string, inner: string, close: string) =>
  `${open.repeat(levels)}${inner}${close.repeat(levels)}`;

/** Hostile values as raw JSON; some have no JavaScript equivalent. */
const HOSTILE: readonly ((random: Random) => string)[] = [
  () => "null",
  () => "true",
  () => "-1",
  () => "1e999",
  () => "-1e999",
  () => "1e308",
  () => "0.1e-320",
  () => "9007199254740993",
  () => '""',
  () => '" "',
  () => '"\\ud800"',
  () => '"\\u0000"',
  () => '"__proto__"',
  () => '"constructor"',
  () => '" QX-TAR "',
  () => '"2026-02-30T10:00:00.000Z"',
  () => '"2026-05-01T24:00:00.000Z"',
  () => '"0000-00-00T00:00:00.000Z"',
  () => '"9999-12-31T23:59:59.999Z"',
  () => '"ffffffff-ffff-7fff-bfff-ffffffffffff"',
  () => "[]",
  () => "{}",
  () => '{"__proto__":{"polluted":true}}',
  () => '{"toString":1,"valueOf":null}',
  (random) => nested(10 + Math.floor(random() * 3000), "[", "1", "]"),
  (random) => nested(10 + Math.floor(random() * 3000), '{"a":', "1", "}"),
  (random) => `"${"x".repeat(Math.floor(random() * 100_000))}"`,
  (random) => `[${"0,".repeat(Math.floor(random() * 50_000))}0]`,
  (random) => `"${"\u{1f6e9}".repeat(Math.floor(random() * 300))}"`,
  (random) => String((random() - 0.5) * 10 ** Math.floor(random() * 30)),
];

/** Paths of a value: every field and element, at any depth. */
function places(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== "object" || value === null) return [path];
  const own = Array.isArray(value)
    ? value.flatMap((inner, i) => places(inner, [...path, i]))
    : Object.entries(value).flatMap(([key, inner]) => places(inner, [...path, key]));
  return [path, ...own];
}

/** JSON of a value with one to three paths replaced by hostile values, removed or renamed. */
export function mutated(value: unknown, random: Random): string {
  const copy = structuredClone(value) as Record<string, unknown>;
  const raw = new Map<string, string>();
  const count = 1 + Math.floor(random() * 3);
  for (let i = 0; i < count; i++) {
    const all = places(copy);
    const path = all[Math.floor(random() * all.length)] ?? [];
    const last = path.at(-1);
    if (last === undefined) continue;
    let parent: Record<string | number, unknown> = copy;
    for (const part of path.slice(0, -1)) parent = parent[part] as typeof parent;
    if (typeof parent !== "object" || parent === null) continue;
    const dice = random();
    if (dice < 0.12) delete parent[last];
    else if (dice < 0.2) parent[`${last}x`] = parent[last];
    else if (dice < 0.3 && typeof parent[last] === "string") parent[last] = `  ${parent[last]} `;
    else {
      const mark = `@@${raw.size}@@`;
      raw.set(mark, (HOSTILE[Math.floor(random() * HOSTILE.length)] as (typeof HOSTILE)[number])(random));
      parent[last] = mark;
    }
  }
  let text = JSON.stringify(copy) ?? "null";
  for (const [mark, hostile] of raw) text = text.replace(`"${mark}"`, () => hostile);
  return text;
}

/** A text truncated, doubled or with characters changed. */
export function torn(text: string, random: Random): string {
  const at = Math.floor(random() * text.length);
  const dice = random();
  if (dice < 0.4) return text.slice(0, at);
  if (dice < 0.6) return text + text;
  return text.slice(0, at) + String.fromCharCode(Math.floor(random() * 0x3000)) + text.slice(at + 1);
}
