import { type ReactNode, useEffect, useRef } from "react";
import { Text as NativeText } from "react-native";
import { usePageTitle } from "./page-title";

/** Previous page's address; undefined on the first page, which the browser announces itself. */
let before: string | undefined;

/** Page heading, browser title, and focus target after navigation. `title` is the browser title if different from the heading. */
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
      // Focused after navigation, never by the tab key.
      {...{ tabIndex: -1 }}
      className={`page-head ${className}`}
    >
      {children}
    </NativeText>
  );
}
