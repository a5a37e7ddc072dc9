import type { BrowserContext } from "@playwright/test";

const DAY_MS = 86_400_000;

/** The last noon in UTC; not the next, because the server rejects events of the future. */
export const lastNoon = () => new Date((Math.floor(Date.now() / DAY_MS - 0.5) + 0.5) * DAY_MS);

/** Sets a browser's clock to noon, so that its flights are by day: a verdict by night is another one. */
export const byDay = (context: BrowserContext) => context.clock.setSystemTime(lastNoon());
