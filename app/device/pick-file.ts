/** Lets the person pick one file and reads it as text; undefined when nothing was picked. */
export function pickTextFile(accept: string): Promise<{ name: string; text: string } | undefined> {
  return new Promise((resolve) => {
    const input = document.createElement("input");
    input.type = "file";
    input.accept = accept;
    input.onchange = async () => {
      const file = input.files?.[0];
      resolve(file && { name: file.name, text: await file.text() });
    };
    input.oncancel = () => resolve(undefined);
    input.click();
  });
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
