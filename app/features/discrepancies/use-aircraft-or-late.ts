import { useEffect, useState } from "react";
import { useBundle } from "../../store/server/server-state";

/** Maximum time a page waits for its aircraft's data, ms. */
const MAX_MS = 3000;

/**
 * True once an aircraft's data have loaded or the wait is over. Drawing them later would move buttons while a thumb is on its
 * way.
 */
export function useAircraftOrLate(registration: string): boolean {
  const known = useBundle(registration) !== undefined;
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (known) return;
    const timer = setTimeout(() => setLate(true), MAX_MS);
    return () => clearTimeout(timer);
  }, [known]);
  return known || late;
}
