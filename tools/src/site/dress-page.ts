import { createHash } from "node:crypto";
import { copyFileSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { ROOT } from "../paths";

const FONTS = join(ROOT, "node_modules", "@fontsource", "atkinson-hyperlegible-next", "files");
/** Font weights of the interface, by font family in the style sheet. */
const FAMILIES = [
  ["AtkinsonNext", 400],
  ["AtkinsonNextSemiBold", 600],
  ["AtkinsonNextBold", 700],
] as const;
/** Character ranges of each font file. Source: the font package's own style sheet. */
const SUBSETS = {
  "latin-ext":
    "U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF",
  latin:
    "U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD",
} as const;

/** Adds to the built page what it needs before any code runs: font preloads, and the list of files to prefetch when idle. */
export function dressPage(root: string): void {
  const file = join(root, "index.html");
  const html = readFileSync(file, "utf8");
  const js = join(root, "_expo", "static", "js", "web");
  const later = readdirSync(js)
    .filter((name) => name.endsWith(".js") && !html.includes(name))
    .map((name) => `/_expo/static/js/web/${name}`);
  const { faces, preloads } = fonts(root);
  writeFileSync(
    file,
    html.replace(
      "</head>",
      `${preloads}<style>${faces}</style><script type="application/json" id="later">${JSON.stringify(later)}</script></head>`,
    ),
  );
}

/** Copies the fonts under names with content hashes, so that they can be cached forever. */
function fonts(root: string): { faces: string; preloads: string } {
  mkdirSync(join(root, "fonts"), { recursive: true });
  const faces: string[] = [];
  const preloads: string[] = [];
  for (const [family, weight] of FAMILIES)
    for (const [subset, range] of Object.entries(SUBSETS)) {
      const from = join(FONTS, `atkinson-hyperlegible-next-${subset}-${weight}-normal.woff2`);
      const hash = createHash("md5").update(readFileSync(from)).digest("hex");
      const href = `/fonts/atkinson-${subset}-${weight}.${hash}.woff2`;
      copyFileSync(from, join(root, href));
      faces.push(
        `@font-face{font-family:${family};font-display:swap;src:url(${href}) format("woff2");unicode-range:${range}}`,
      );
      if (subset === "latin")
        preloads.push(`<link rel="preload" href="${href}" as="font" type="font/woff2" crossorigin>`);
    }
  return { faces: faces.join(""), preloads: preloads.join("") };
}
