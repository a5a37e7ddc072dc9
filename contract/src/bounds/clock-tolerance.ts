/** How far ahead of the server a device's clock may be. Beyond it the event waits on the device until the clock is right. */
export const CLOCK_TOLERANCE_MIN = 10;
