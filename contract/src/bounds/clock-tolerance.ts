/** Minutes a device's clock may be ahead of the server. Later events wait on the device until the clock is right. */
export const CLOCK_TOLERANCE_MIN = 10;
