/** Asks the browser for persistent storage. Resolves to whether it agreed. */
export async function requestPersistence(): Promise<boolean> {
  try {
    return (await navigator.storage?.persist?.()) ?? false;
  } catch {
    return false;
  }
}

/** Whether storage is persistent, and free space in MB. */
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
