import { type ReactNode, useEffect, useRef } from "react";
import { Text as NativeText } from "react-native";
import { usePageTitle } from "./page-title";

/** The address of the page that was shown before this one; of the first page the browser itself says what it is. */
let before: string | undefined;

/**
 * What a page is, at its top: its one first heading, its title in the browser, and where a person who came here by keyboard or by ear is put.
 * `title` is for the browser where the heading alone does not say it.
 */
export function PageHead({
  children,
  title,
  className = "",
}: {
  children: ReactNode;
  title?: string;
  className?: string;
}) {
  const heading = useRef<NativeText>(null);
  usePageTitle(title ?? (typeof children === "string" ? children : undefined));
  useEffect(() => {
    const here = typeof location === "undefined" ? "" : location.pathname;
    if (before !== undefined && before !== here)
      (heading.current as unknown as HTMLElement | null)?.focus?.({ preventScroll: true });
    before = here;
  }, []);
  return (
    <NativeText
      ref={heading}
      role="heading"
      aria-level={1}
      // Reached by a change of page, never by the tab key.
      {...{ tabIndex: -1 }}
      className={`page-head ${className}`}
    >
      {children}
    </NativeText>
  );
}
