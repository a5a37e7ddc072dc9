import type { ReactNode } from "react";
import { Text as NativeText, type TextProps } from "react-native";
import { twMerge } from "tailwind-merge";

type Props = TextProps & { children: ReactNode; className?: string };

export function Text({ className = "", ...rest }: Props) {
  return (
    <NativeText
      className={twMerge("font-body text-base text-ink", className)}
      style={{ fontVariant: ["tabular-nums"] }}
      {...rest}
    />
  );
}

/** A heading; `level` is its place in the page's outline. */
export function Heading({ level = 2, className = "", ...rest }: Props & { level?: 1 | 2 | 3 }) {
  return (
    <NativeText
      role="heading"
      aria-level={level}
      className={twMerge("font-strong text-xl text-ink", className)}
      style={{ fontVariant: ["tabular-nums"] }}
      {...rest}
    />
  );
}
