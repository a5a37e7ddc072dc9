import type { ReactNode } from "react";
import { Text as NativeText, type TextProps } from "react-native";

type Props = TextProps & { children: ReactNode; className?: string };

/** Words of the house's type. What `words` sets is in global.css, below every class that is given here. */
export function Text({ className = "", ...rest }: Props) {
  return <NativeText className={`words ${className}`} {...rest} />;
}

/** A heading; `level` is its place in the page's outline. */
export function Heading({ level = 2, className = "", ...rest }: Props & { level?: 1 | 2 | 3 }) {
  return <NativeText role="heading" aria-level={level} className={`heading ${className}`} {...rest} />;
}
