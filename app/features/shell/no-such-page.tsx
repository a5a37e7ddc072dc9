import { PageNotFound } from "./nothing-here";

/** Page for an unknown address. */
export function NoSuchPage() {
  return (
    <PageNotFound head="Page not found" title="Page not found">
      The link may be out of date. Nothing is lost: unfinished preflights are kept with their aircraft.
    </PageNotFound>
  );
}
