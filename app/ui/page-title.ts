import { useEffect } from "react";

/** Sets the browser title; unchanged if undefined. */
export function usePageTitle(title: string | undefined): void {
  useEffect(() => {
    if (title && typeof document !== "undefined") document.title = `${title} · Cravix`;
  }, [title]);
}

/** Focuses the page's first heading when it opens, for pages without a PageHead. */
export function useHeadingFirst(): void {
  useEffect(() => {
    if (typeof document === "undefined") return;
    const heading = document.querySelector<HTMLElement>("h1");
    heading?.setAttribute("tabindex", "-1");
    heading?.focus({ preventScroll: true });
  }, []);
}
