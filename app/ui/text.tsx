import type { ReactNode } from "react";
import { Text as NativeText, type TextProps } from "react-native";

type Props = TextProps & { children: ReactNode; className?: string };

/** Text in the app's font. Defaults are in global.css, so that classes given here override them. */
export function Text({ className = "", ...rest }: Props) {
  return <NativeText className={`words ${className}`} {...rest} />;
}

/** A heading; `level` is its outline level. */
export function Heading({ level = 2, className = "", ...rest }: Props & { level?: 1 | 2 | 3 }) {
  return <NativeText role="heading" aria-level={level} className={`heading ${className}`} {...rest} />;
}
