import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";

const AXE = readFileSync(require.resolve("axe-core/axe.min.js"), "utf8");

/** Expects axe-core to find nothing on this screen. */
export async function expectAccessible(page: Page, screen: string): Promise<void> {
  // Half a megabyte: loaded once per page.
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(AXE);
  const violations = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: typeof import("axe-core") };
    const { violations: found } = await axe.run(document, {
      runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
      // Only violations are listed.
      resultTypes: ["violations"],
    });
    return found.map((v) => `${v.id}: ${v.help} (${v.nodes.map((n) => n.html.slice(0, 160)).join(" | ")})`);
  });
  expect(violations, screen).toEqual([]);
}
