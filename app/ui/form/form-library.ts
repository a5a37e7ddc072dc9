import { use, useEffect } from "react";

type Library = typeof import("./library");

let loaded: Library | undefined;
let loading: Promise<Library> | undefined;

/** Loads the form library, once. */
export function loadFormLibrary(): Promise<Library> {
  loading ??= import("./library").then(
    (library) => {
      loaded = library;
      return library;
    },
    (error: unknown) => {
      // Try again when a form opens the next time.
      loading = undefined;
      throw error;
    },
  );
  return loading;
}

/** The form library. Suspends while it loads. */
export function useFormLibrary(): Library {
  return loaded ?? use(loadFormLibrary());
}

/** `useWatch` of the form library. */
export const useWatch = ((options: never) => useFormLibrary().useWatch(options)) as Library["useWatch"];

/** For a page whose forms open later: loads the library now, so that none waits for it. */
export function useFormsSoon(): void {
  useEffect(() => {
    loadFormLibrary().catch(() => undefined);
  }, []);
}
