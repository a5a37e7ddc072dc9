/** Asks the browser not to clear this device's answers away when space runs short. Resolves to whether it promised. */
export async function askToPersist(): Promise<boolean> {
  try {
    return (await navigator.storage?.persist?.()) ?? false;
  } catch {
    return false;
  }
}

/** Whether this browser promised to keep what is on this device, and how much room is left, MB. */
export async function roomLeft(): Promise<{ persisted: boolean; leftMb: number | undefined }> {
  try {
    const { quota, usage } = (await navigator.storage?.estimate?.()) ?? {};
    return {
      persisted: (await navigator.storage?.persisted?.()) ?? false,
      leftMb:
        quota === undefined || usage === undefined ? undefined : Math.floor((quota - usage) / 1_000_000),
    };
  } catch {
    return { persisted: false, leftMb: undefined };
  }
}
