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
    fontSize: {
      xs: ["13px", "18px"],
      sm: ["15px", "20px"],
      base: ["17px", "24px"],
      lg: ["20px", "26px"],
      xl: ["24px", "30px"],
      "2xl": ["29px", "34px"],
      "3xl": ["40px", "46px"],
      "4xl": ["56px", "60px"],
    },
  },
};
