import type { ReactNode } from "react";
import { Heading } from "./text";

/** What a page is, at its top. */
export function PageHead({ children }: { children: ReactNode }) {
  return (
    <Heading level={1} className="text-3xl">
      {children}
    </Heading>
  );
}
