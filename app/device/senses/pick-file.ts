/** Lets the person pick one file; undefined when nothing was picked. It is not read here: it may be of any size. */
export function pickFile(accept: string): Promise<File | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement("input");
    input.type = "file";
    input.accept = accept;
    input.onchange = () => resolve(input.files?.[0]);
    input.oncancel = () => resolve(undefined);
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
