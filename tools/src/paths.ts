import { dirname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
export const WEB_ROOT = join(ROOT, "app", "dist");
/** Where the database and its settings live; kept between starts. */
export const dataDirectory = (): string => resolve(process.env.CRAVIX_DATA ?? join(ROOT, ".cravix", "data"));
