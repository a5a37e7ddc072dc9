import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { runTask } from "./fail";
import { ROOT } from "./paths";
import { wholeBrowser } from "./site/browser";

const FOLDER = join(ROOT, "app", "public", "icons");
/** Icons by drawing, size and file name. */
const ICONS = [
  ["cravix", 32, "icon-32"],
  ["cravix", 192, "icon-192"],
  ["cravix", 512, "icon-512"],
  ["maskable", 180, "apple-touch-180"],
  ["maskable", 192, "maskable-192"],
  ["maskable", 512, "maskable-512"],
] as const;

/** Renders the icons from their drawings; commit both together. */
await runTask(async () => {
  const browser = await chromium.launch({
    executablePath: wholeBrowser(),
    args: ["--no-sandbox", "--disable-gpu"],
  });
  for (const [drawing, size, name] of ICONS) {
    const page = await browser.newPage({ viewport: { width: size, height: size } });
    const svg = readFileSync(join(FOLDER, `${drawing}.svg`), "utf8");
    await page.setContent(
      `<style>body{margin:0}svg{display:block;width:${size}px;height:${size}px}</style>${svg}`,
    );
    writeFileSync(join(FOLDER, `${name}.png`), await page.screenshot({ omitBackground: true }));
    await page.close();
  }
  await browser.close();
  process.exit(0);
});
