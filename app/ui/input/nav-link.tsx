import { type Href, router } from "expo-router";
import type { ReactNode } from "react";
import { type GestureResponderEvent, Pressable } from "react-native";

/** A real link, which can be opened in another window, with client-side navigation. */
export function NavLink({
  href,
  children,
  label,
  here = false,
  className = "",
  testID,
}: {
  href: string;
  children: ReactNode;
  label?: string;
  /** True for the current page. */
  here?: boolean;
  className?: string;
  testID?: string;
}) {
  return (
    <Pressable
      role="link"
      aria-label={label}
      aria-current={here ? "page" : undefined}
      testID={testID}
      className={className}
      {...{ href }}
      onPress={(event: GestureResponderEvent) => {
        const { metaKey, ctrlKey, shiftKey } = event.nativeEvent as unknown as MouseEvent;
        if (metaKey || ctrlKey || shiftKey) return;
        event.preventDefault?.();
        router.navigate(href as Href);
      }}
    >
      {children}
    </Pressable>
  );
}
