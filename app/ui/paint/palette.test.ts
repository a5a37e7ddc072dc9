import { readFileSync } from "node:fs";
import { join } from "node:path";
import { DAY, NIGHT, type Palette } from "./palette";

const css = readFileSync(join(__dirname, "..", "..", "global.css"), "utf8");
const channels = (hex: string) => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16));

/** Relative luminance and contrast ratio. Source: WCAG 2.2, definitions (from memory). */
function luminance(hex: string): number {
  const [r = 0, g = 0, b = 0] = channels(hex).map((c) => {
    const s = c / 255;
    return s <= 0.04045 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
  const [dark = 0, light = 0] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (light + 0.05) / (dark + 0.05);
}

test("the contrast formula gives 21 for black on white (WCAG 2.2)", () => {
  expect(contrast("#000000", "#FFFFFF")).toBeCloseTo(21, 6);
});

describe.each([
  ["day", DAY, ":root"],
  ["night", NIGHT, ".night"],
])("%s", (_name, palette, selector) => {
  const pairs: [keyof Palette, keyof Palette][] = [
    ["ink", "paper"],
    ["voice", "paper"],
    ["clay", "paper"],
    ["ink", "stone"],
    ["voice", "stone"],
    ["clay", "stone"],
    ["onChock", "chock"],
    ["deckInk", "deck"],
  ];
  // Outdoors: the stricter 7:1 of WCAG 2.2, success criterion 1.4.6. At night 5.5:1 is enough, at low luminance.
  const least = palette === DAY ? 7 : 5.5;
  test.each(pairs)("%s on %s can be read", (front, back) => {
    expect(contrast(palette[front], palette[back])).toBeGreaterThanOrEqual(least);
  });

  test("is the same in the style sheet and in the drawings", () => {
    const block = css.slice(css.indexOf(`${selector} {`)).split("}")[0] ?? "";
    for (const [name, hex] of Object.entries(palette)) {
      const variable = name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`);
      expect(block).toContain(`--${variable}: ${channels(hex).join(" ")};`);
    }
  });
});
