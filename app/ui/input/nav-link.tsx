import { type Href, router } from "expo-router";
import type { ReactNode } from "react";
import { type GestureResponderEvent, Pressable } from "react-native";

/** A real link: it has an address, can be opened in another window, and goes there without loading anew. */
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
  /** This is where one is. */
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
