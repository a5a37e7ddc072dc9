import { NothingHere } from "../../shell/nothing-here";

/** The address names a preflight that this device does not have. */
export function NoSuchWalk() {
  return (
    <NothingHere head="This preflight is not on this device" title="Preflight not found">
      It may have been started on another device.
    </NothingHere>
  );
}
