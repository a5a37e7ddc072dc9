import { NothingHere } from "./nothing-here";

/** The address names nothing that there is. */
export function NoSuchPage() {
  return (
    <NothingHere head="Page not found" title="Page not found">
      The link may be out of date. Nothing is lost: unfinished preflights are kept with their aircraft.
    </NothingHere>
  );
}
