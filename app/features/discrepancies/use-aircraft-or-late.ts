import { useEffect, useState } from "react";
import { useBundle } from "../../store/server/server-state";

/** So long the rest of a page waits for what is known of its aircraft, ms. */
const LATEST_MS = 3000;

/**
 * Whether what is known of an aircraft is here, or is not to be waited for any longer. What is drawn with it would move buttons away from under a thumb when it comes: a tap that lands
 * beside is a tap that is lost.
 */
export function useAircraftOrLate(registration: string): boolean {
  const known = useBundle(registration) !== undefined;
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (known) return;
    const timer = setTimeout(() => setLate(true), LATEST_MS);
    return () => clearTimeout(timer);
  }, [known]);
  return known || late;
}
