/** The one that the person was asked with last. */
let asked: HTMLInputElement | undefined;

/**
 * Lets the person pick one file; undefined when nothing was picked. It is not read here: it may be of any size. The input stands in the page until
 * then: a browser may clear away one that nothing holds while the person still looks for the file, and what was picked would never arrive.
 */
export function pickFile(accept: string): Promise<File | undefined> {
  return new Promise((resolve) => {
    // Not every browser tells when nothing was picked.
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

/** Lets the person pick one file and reads it as text; undefined when nothing was picked. */
export async function pickTextFile(accept: string): Promise<{ name: string; text: string } | undefined> {
  const file = await pickFile(accept);
  return file && { name: file.name, text: await file.text() };
}

/** Hands the person a file to keep. */
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
