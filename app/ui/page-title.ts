import { useEffect } from "react";

/** What the browser's tab and its history call this page; nothing is changed without a title. */
export function usePageTitle(title: string | undefined): void {
  useEffect(() => {
    if (title && typeof document !== "undefined") document.title = `${title} · Cravix`;
  }, [title]);
}

/** Puts a person who came here by keyboard or by ear at the page's first heading, where the page itself does not: once, when it opens. */
export function useHeadingFirst(): void {
  useEffect(() => {
    if (typeof document === "undefined") return;
    const heading = document.querySelector<HTMLElement>("h1");
    heading?.setAttribute("tabindex", "-1");
    heading?.focus({ preventScroll: true });
  }, []);
}
