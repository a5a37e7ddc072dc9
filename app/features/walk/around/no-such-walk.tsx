import { NothingHere } from "../../shell/nothing-here";

/** The address names a preflight that this device does not have. */
export function NoSuchWalk() {
  return (
    <NothingHere head="This device has no such preflight" title="No such preflight">
      It may have been begun on another one.
    </NothingHere>
  );
}
