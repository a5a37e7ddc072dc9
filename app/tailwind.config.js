const token = (name) => `rgb(var(--${name}) / <alpha-value>)`;

/** @type {import('tailwindcss').Config} */
module.exports = {
  content: ["./app/**/*.tsx", "./features/**/*.tsx", "./ui/**/*.tsx"],
  presets: [require("nativewind/preset")],
  theme: {
    extend: {
      colors: Object.fromEntries(
        ["paper", "ink", "chock", "clay", "stone", "voice", "deck", "deck-ink", "on-chock"].map((name) => [
          name,
          token(name),
        ]),
      ),
      fontFamily: { body: ["AtkinsonNext"], mid: ["AtkinsonNextSemiBold"], strong: ["AtkinsonNextBold"] },
    },
    // CSS variables, because wide screens use larger sizes for projection.
    fontSize: Object.fromEntries(
      ["xs", "sm", "base", "lg", "xl", "2xl", "3xl", "4xl"].map((size) => [
        size,
        [`var(--type-${size})`, `var(--line-${size})`],
      ]),
    ),
  },
};
