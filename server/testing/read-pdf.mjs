// Prints the text of each page of a PDF on standard input as JSON. A separate program, because the library is an ES module.
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";

const parts = [];
for await (const part of process.stdin) parts.push(part);
const pdf = await getDocument({ data: new Uint8Array(Buffer.concat(parts)), verbosity: 0 }).promise;
const pages = [];
for (let number = 1; number <= pdf.numPages; number++) {
  const { items } = await (await pdf.getPage(number)).getTextContent();
  pages.push(
    items
      .map((item) => ("str" in item ? item.str : ""))
      .join(" ")
      .replace(/\s+/g, " "),
  );
}
process.stdout.write(JSON.stringify(pages));
process.exit(0);
