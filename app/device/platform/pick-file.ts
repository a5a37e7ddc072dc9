/** The latest file input. */
let asked: HTMLInputElement | undefined;

/**
 * Asks the user for one file; undefined if none is chosen. It is not read yet, so any size is fine. The input stays in the
 * document meanwhile: browsers may discard a detached one while the file dialog is open, and the file would never arrive.
 */
export function pickFile(accept: string): Promise<File | undefined> {
  return new Promise((resolve) => {
    // Not every browser reports a cancelled dialog.
    asked?.remove();
    const input = document.createElement("input");
    asked = input;
    input.type = "file";
    input.accept = accept;
    input.hidden = true;
    const picked = (file: File | undefined) => {
      input.remove();
      resolve(file);
    };
    input.onchange = () => picked(input.files?.[0]);
    input.oncancel = () => picked(undefined);
    document.body.append(input);
    input.click();
  });
}

/** Asks the user for one file and reads it as text; undefined if none is chosen. */
export async function pickTextFile(accept: string): Promise<{ name: string; text: string } | undefined> {
  const file = await pickFile(accept);
  return file && { name: file.name, text: await file.text() };
}

/** Downloads a file for the user. */
export function saveBlob(name: string, blob: Blob): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}

export function saveTextFile(name: string, text: string, type = "application/json"): void {
  saveBlob(name, new Blob([text], { type }));
}
