import { NothingHere } from "./nothing-here";

/** The address names nothing that there is. */
export function NoSuchPage() {
  return (
    <NothingHere head="There is no such page" title="No such page">
      The link may be an old one. Nothing is lost: an open preflight waits at its aircraft.
    </NothingHere>
  );
}
