import { PageNotFound } from "../shell";

/** The preflight in the address is not on this device. */
export function PreflightNotFound() {
  return (
    <PageNotFound head="This preflight is not on this device" title="Preflight not found">
      It may have been started on another device.
    </PageNotFound>
  );
}
