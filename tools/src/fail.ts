/** A problem the user can fix, as one line. */
export class SetupError extends Error {
  override readonly name = "SetupError";
}

/** Runs a task; a SetupError ends it with one line instead of a stack trace. */
export async function runTask(task: () => Promise<void>): Promise<void> {
  try {
    await task();
  } catch (error) {
    const full = (error as NodeJS.ErrnoException).code === "ENOSPC";
    if (full)
      console.error(
        "cravix: the disk is full. Free some space, or set CRAVIX_DATA to a directory on another disk.",
      );
    else if (error instanceof SetupError) console.error(`cravix: ${error.message}`);
    else console.error(error);
    process.exit(1);
  }
}
